#pragma once
/// Commands with a file of their own: each adds itself, its options and its help beside what it does.

#include "files/build_file.hpp"
#include "study/study.hpp"

#include <CLI/CLI.hpp>

#include <string>

namespace deepstop::cli {

inline constexpr int fine = 0;
inline constexpr int bad = 1; ///< something hits or stops
inline constexpr int refused = 2; ///< bad input

/// Which build and which two of its setups a command is about.
struct Subject {
    std::string path;
    std::string setup;
    std::string against;
    std::string axle = "front";
    bool us = false;

    void addTo(CLI::App& command);
    void addAxleTo(CLI::App& command);
    /// Reads and studies it. Throws files::Refusal for an unknown setup.
    [[nodiscard]] Study studied() const;
    [[nodiscard]] Axle onAxle() const { return axle == "rear" ? Axle::Rear : Axle::Front; }
};

/// The setup with that id. Throws files::Refusal naming those there are.
const Setup& setupOf(const files::BuildFile& file, const std::string& path, const std::string& id);

/// Writes the build at `path`, with an edit applied, to `into`. Throws files::Refusal, also where the edit does not apply.
void writeEdited(const std::string& path, const Edit& edit, const std::string& into);

/// Today, ISO 8601.
[[nodiscard]] std::string today();

/// study, calc, check, ask and schema. `code` becomes the program's exit code when the command runs.
void addStudyCommands(CLI::App& app, int& code);
/// import.
void addLibraryCommands(CLI::App& app, int& code);
/// template and fit. `code` becomes the program's exit code when the command runs.
void addWheelCommands(CLI::App& app, int& code);
/// card, report and log.
void addCardCommands(CLI::App& app, int& code);
/// import runs and proving; after `addLibraryCommands`.
void addProvingCommands(CLI::App& app, int& code);
/// heat.
void addHeatCommands(CLI::App& app, int& code);
/// balance.
void addBalanceCommands(CLI::App& app, int& code);
/// symptom.
void addSymptomCommands(CLI::App& app, int& code);
/// centre and bracket.
void addHardwareCommands(CLI::App& app, int& code);
/// design.
void addDesignCommands(CLI::App& app, int& code);
/// search.
void addSearchCommands(CLI::App& app, int& code);
/// scan.
void addScanCommands(CLI::App& app, int& code);

} // namespace deepstop::cli
