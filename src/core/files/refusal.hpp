#pragma once
#include "quantity/text.hpp"

#include <stdexcept>
#include <string>

namespace deepstop::files {

/// A file that cannot be taken. `what()` is one line, safe to print: where, what is wrong, what to do. Nothing on disk was touched.
class Refusal : public std::runtime_error {
public:
    explicit Refusal(std::string_view why) : std::runtime_error(onOneLine(why)) { }
};

} // namespace deepstop::files
