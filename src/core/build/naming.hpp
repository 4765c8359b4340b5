#pragma once
/// Inside build/: going through a document and knowing at every field where it stands and what a person calls it.

#include "build/fields.hpp"
#include "language/language.hpp"

#include <fmt/format.h>

#include <string>
#include <tuple>

namespace deepstop {

/// Keeps what the place is called while it goes through a document: pointer, whose it is, which element of a list.
class Naming : public ConstVisitor {
public:
    void readings(const ReadingField& field, const std::vector<Reading>& list, std::size_t most) override
    {
        for (std::size_t i = 0; i < list.size(); ++i)
            inside(fmt::format("{}/{}", field.key, i), {}, {}, [&] { element(field, i + 1, &list[i]); });
        if (list.size() < most)
            inside(std::string(field.key) + "/-", {}, {}, [&] { element(field, list.size() + 1, nullptr); });
    }
    void object(const Name& name, const ConstPart& part) override
    {
        inside(name.key, tr(name.label), {}, [&] { part.describe(*this); });
    }
    void optional(const Name& name, const ConstPart* part, const ConstPart&) override
    {
        // What a session ran with is a record: nobody measures or edits it any more.
        if (part && name.key != "ran")
            object(name, *part);
    }
    void list(const ListField& field, const ConstList& list) override
    {
        const auto suffix = [&](std::size_t number) {
            return field.label.empty() ? std::string() : fmt::format(", {} {}", tr(field.label), number);
        };
        for (std::size_t i = 0; i < list.size(); ++i)
            inside(fmt::format("{}/{}", field.key, i), list.title(i), suffix(i + 1), [&] { list.describe(*this, i); });
        // A wheel or a setup needs more than one reading to be one; stations, weighings and their like begin with any of theirs.
        if (!list.hasIds() && list.size() < field.most) {
            ++free_;
            inside(std::string(field.key) + "/-", {}, suffix(list.size() + 1), [&] { list.describeBlank(*this); });
            --free_;
        }
    }

protected:
    /// One of a list of readings, numbered from 1; null at its free place.
    virtual void element(const ReadingField&, std::size_t, const Reading*) { }
    /// Whether anything of interest lies at `pointer` or below.
    [[nodiscard]] virtual bool seeks(std::string_view) const { return true; }

    [[nodiscard]] const std::string& pointer() const { return pointer_; }
    [[nodiscard]] std::string pointerTo(const Name& name) const { return std::string(pointer_).append("/").append(name.key); }
    [[nodiscard]] const std::string& place() const { return place_; }
    [[nodiscard]] std::string labelOf(const Name& name) const { return std::string(tr(name.label)).append(suffix_); }
    [[nodiscard]] bool inFreePlace() const { return free_ > 0; }

private:
    void inside(std::string_view key, std::string_view place, std::string_view suffix, auto go)
    {
        const auto [pointer, outer, outerSuffix] = std::tuple { pointer_.size(), place_.size(), suffix_.size() };
        pointer_.append("/").append(key);
        if (seeks(pointer_)) {
            if (!place.empty())
                place_.append(outer > 0 ? ", " : "").append(place);
            suffix_ += suffix;
            go();
        }
        // Back to where it stood: the names grow and shrink at their end.
        pointer_.resize(pointer);
        place_.resize(outer);
        suffix_.resize(outerSuffix);
    }

    std::string pointer_; ///< of what is being walked through
    std::string place_;
    std::string suffix_;
    int free_ = 0;
};

} // namespace deepstop
