#pragma once
/// Letters to those who sell: what is not known yet, what is wrong with what came, and what was done with it meanwhile.

#include "report/leaf.hpp"
#include "verdict/findings.hpp"

#include <filesystem>
#include <string>
#include <vector>

namespace deepstop::report {

/// What has been done with the kit of the setup after, by what was ticked on its job card, opened by hand, logged and driven. Sentences.
/// Never empty: where nothing stands in the file it says so, and no more.
[[nodiscard]] std::string whatWasDone(const Study& study);

/// All faults of the setup after as a message, and what was done with the kit; empty where there are no faults.
[[nodiscard]] std::string faultLetter(const Study& study);

/// Those the setups of a build are from, each once, in their order; without the car as found.
[[nodiscard]] std::vector<std::string> vendorsOf(const Build& build);

/// One letter to a vendor: of each of his setups what is wrong with it, then what is asked. Nothing of the car as found.
/// @param studies one for each of his setups, each the setup after
/// @param date ISO
[[nodiscard]] Leaf letterTo(
    const std::string& vendor, const std::vector<Study>& studies, const std::string& date, const std::filesystem::path& folder);

} // namespace deepstop::report
