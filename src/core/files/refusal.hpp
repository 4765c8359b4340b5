#pragma once
#include <stdexcept>
#include <string>

namespace deepstop::files {

/// A file that cannot be taken. `what()` is one line: where, what is wrong, what to do. Nothing on disk was touched.
class Refusal : public std::runtime_error {
public:
    using std::runtime_error::runtime_error;
};

} // namespace deepstop::files
