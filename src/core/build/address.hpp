#pragma once
/// Readings by address: where one stands in the document, what it is called, and how it is written.

#include "build/fields.hpp"

#include <string>
#include <unordered_map>
#include <vector>

namespace deepstop {

/// One reading's place in a build.
struct Address {
    std::string pointer; ///< JSON pointer in the file, "/setups/1/front/rotor/thickness_mm"
    std::string label; ///< in the trade's words, "rotor thickness"
    std::string place; ///< whose it is, "Kit B, front"
    Style style = style::number;
    Range range = Range::Any;

    /// "rotor thickness (Kit B, front)"
    [[nodiscard]] std::string full() const { return place.empty() ? label : label + " (" + place + ")"; }
};

/// All readings of one build, found by pointer or by their place in memory. Valid as long as that build lives and keeps its shape.
class Directory {
public:
    explicit Directory(const Build& build);

    struct Entry {
        Address address;
        const Reading* reading;
    };
    [[nodiscard]] const std::vector<Entry>& entries() const { return entries_; }
    /// Null for a reading that is not of this build.
    [[nodiscard]] const Address* of(const Reading& reading) const;
    /// Null for an address this build does not have.
    [[nodiscard]] const Entry* at(const std::string& pointer) const;

private:
    std::vector<Entry> entries_;
    std::unordered_map<const Reading*, std::size_t> byReading_;
    std::unordered_map<std::string, std::size_t> byPointer_;
};

/// A copy of `build` with the reading at `pointer` replaced; the build unchanged where the address is unknown.
[[nodiscard]] Build withReading(Build build, const std::string& pointer, const Reading& reading);

/// Why `reading` may not stand at `address` ("rotor thickness must be more than 0"), or empty where it may.
[[nodiscard]] std::string refusal(const Address& address, double si);

} // namespace deepstop
