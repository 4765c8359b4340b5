#pragma once
/// Readings by address: where one stands in the document, what it is called, and how it is written.

#include "build/fields.hpp"

#include <memory>
#include <optional>
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
    Range range { 0, 0 };
    std::string_view english {}; ///< as the table of fields has it, whatever the reader speaks

    /// "rotor thickness (Kit B, front)"
    [[nodiscard]] std::string full() const { return place.empty() ? label : label + " (" + place + ")"; }
};

/// The build with its readings and its facts numbered from 1, in the order of the table of fields; itself where they are numbered so.
[[nodiscard]] std::shared_ptr<const Build> numbered(std::shared_ptr<const Build> build);

/// All readings of one build, found by pointer or by their number. Valid as long as that build lives and keeps its shape.
/// A list ends in a free place named "-", as JSON pointers have it: a reading put there makes a new element.
class Directory {
    class CollectReadings;

public:
    explicit Directory(const Build& build);
    /// Of a build that may have the same shape as the one of `last`: then their addresses are the same and are shared.
    Directory(const Build& build, const Directory& last);

    struct Entry {
        const Address& address;
        const Reading* reading;
    };
    [[nodiscard]] const std::vector<Entry>& entries() const { return entries_; }
    /// Null for a reading that is not of this build.
    [[nodiscard]] const Entry* find(ReadingId reading) const;
    [[nodiscard]] const Address* of(ReadingId reading) const
    {
        const Entry* entry = find(reading);
        return entry ? &entry->address : nullptr;
    }
    /// Null for an address this build does not have. Free places of lists are found too; they hold an empty reading.
    [[nodiscard]] const Entry* at(const std::string& pointer) const;
    /// Where the facts stand, in the order of their numbers.
    [[nodiscard]] const std::vector<Address>& facts() const { return addresses_->facts; }
    /// Where the fact with that number stands; null for one that is not of this build.
    [[nodiscard]] const Address* ofFact(std::uint32_t number) const
    {
        return number > 0 && number <= addresses_->facts.size() ? &addresses_->facts[number - 1] : nullptr;
    }
    /// Whether the two builds differ in nothing but what their readings and numbered facts say, and in their job cards and log, which no
    /// study looks at.
    [[nodiscard]] bool sameShape(const Directory& other) const { return shape_ == other.shape_ && studied_ == other.studied_; }
    /// What does not say the same in both builds. @pre the same shape
    [[nodiscard]] Looked changedSince(const Directory& last) const;

private:
    struct Addresses {
        std::vector<Address> all;
        std::vector<Address> free;
        std::vector<Address> facts; ///< in the order of their numbers
        std::unordered_map<std::string_view, std::size_t> byPointer; ///< of `all`, into their own pointers
    };
    /// Puts the readings, in the order of their addresses, beside them.
    void put(const CollectReadings& found);
    void makeAddresses(const Build& build);

    std::shared_ptr<const Addresses> addresses_;
    std::vector<Entry> entries_;
    std::vector<Entry> free_;
    std::vector<std::uint64_t> facts_; ///< what each numbered fact says, as a number
    std::uint64_t shape_ = 0; ///< everything else that is no reading, as one number
    std::uint64_t records_ = 0; ///< the same of job cards and log
    std::size_t studied_ = 0; ///< readings before those of job cards and log
    bool numbered_ = true;
};

/// A copy of `build` with the reading at `pointer` replaced, or added where the pointer names the free place of a list; the build
/// unchanged where the address is unknown, the list full, or the reading outside the field's range.
[[nodiscard]] Build withReading(Build build, const std::string& pointer, const Reading& reading);

/// A copy of `build` without the element of a list that `pointer` names; unchanged where there is none.
[[nodiscard]] Build withoutElement(Build build, const std::string& pointer);

/// Something named, counted or chosen rather than measured, as it is shown and said.
struct StatedFact {
    enum class Kind { Text, Count, Plain, Word, Ticks };
    std::string pointer;
    std::string label;
    std::string place;
    Kind kind = Kind::Text;
    std::vector<std::string> words; ///< to choose from, for Word and Ticks
    std::string value; ///< as text; ticked words are parted by commas; a count not made is empty

    [[nodiscard]] std::string full() const { return place.empty() ? label : label + " (" + place + ")"; }
};

/// The fact at `pointer`, or nothing.
[[nodiscard]] std::optional<StatedFact> factAt(const Build& build, const std::string& pointer);

/// A copy of `build` with that fact said anew; `refusal` is a sentence where the text cannot be taken.
struct FactEntry {
    std::optional<Build> build;
    std::string refusal;
};
[[nodiscard]] FactEntry withFact(Build build, const std::string& pointer, const std::string& text);

/// Whether a field of that range may hold `reading`: its value, its repeats, its plus-or-minus.
[[nodiscard]] bool isWithin(const Range& range, const Reading& reading);

/// Why `reading` may not stand at `address` ("rotor thickness must be from 0.1 mm to 500 mm."), or empty where it may. The one refusal for
/// what is typed, dragged or sent by an instrument.
[[nodiscard]] std::string refusal(const Address& address, const Reading& reading, UnitSystem system = UnitSystem::Metric);
[[nodiscard]] std::string refusal(const Address& address, double si, UnitSystem system = UnitSystem::Metric);

} // namespace deepstop
