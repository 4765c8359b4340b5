#pragma once
/// What a study has worked out, kept for the next one: a result stands as long as every reading and fact looked at for it says
/// the same.

#include "quantity/noted.hpp"

#include <memory>
#include <mutex>
#include <stdexcept>
#include <string>
#include <typeindex>
#include <unordered_map>
#include <utility>

namespace deepstop {

/// Results by name, each with what was looked at. Of one build at one question; used from several threads.
class Memory {
public:
    /// Knows nothing yet.
    /// @param readings so many the build has
    explicit Memory(std::size_t readings) : readings_(readings) { }
    /// Knows what `last` knew and nothing changed was looked at for. @pre both builds have the same shape
    Memory(const Memory& last, const Looked& changed) : readings_(last.readings_)
    {
        for (const auto& [name, entry] : last.entries_)
            if (!entry->looked.meets(changed) && !entry->captured.meets(changed.facts))
                entries_.emplace(name, entry);
    }

    /// What `make` gives, or gave when it was last asked for under that name. It may look at readings, at facts, at results kept in the
    /// study, and at nothing else that changes. What it looked at counts for whatever is being worked out around it. The facts looked at
    /// around it count for it too, because `make` may have captured what they say.
    /// Cancelled or failed, it is not remembered.
    template <class Make>
    auto recall(const std::string& name, Make make) -> std::invoke_result_t<Make>
    {
        using Result = std::invoke_result_t<Make>;
        if (const auto entry = find(name)) {
            if (entry->type != typeid(Result))
                throw std::logic_error(fmt::format("two kinds of result are remembered as {}", name));
            NotingScope::note(entry->looked, entry->captured);
            return *static_cast<const Result*>(entry->result.get());
        }
        auto entry = std::make_shared<Entry>(Entry { {}, {}, nullptr, typeid(Result) });
        auto result = [&] {
            NotingScope scope(readings_);
            auto made = std::make_shared<const Result>(make());
            entry->looked = scope.looked;
            entry->captured = scope.captured;
            return made;
        }();
        entry->captured.add(NotingScope::factsSoFar());
        entry->result = result;
        put(name, std::move(entry));
        return *result;
    }

    [[nodiscard]] std::size_t size() const
    {
        const std::lock_guard lock(mutex_);
        return entries_.size();
    }

private:
    struct Entry {
        Looked looked;
        NumberSet captured; ///< facts that `make` may have captured
        std::shared_ptr<const void> result;
        std::type_index type;
    };
    [[nodiscard]] std::shared_ptr<const Entry> find(const std::string& name) const
    {
        const std::lock_guard lock(mutex_);
        const auto found = entries_.find(name);
        return found == entries_.end() ? nullptr : found->second;
    }
    void put(const std::string& name, std::shared_ptr<const Entry> entry)
    {
        const std::lock_guard lock(mutex_);
        entries_.insert_or_assign(name, std::move(entry));
    }

    std::size_t readings_;
    mutable std::mutex mutex_;
    std::unordered_map<std::string, std::shared_ptr<const Entry>> entries_;
};

} // namespace deepstop
