#pragma once
/// The study of a build: which setups it compares, what its chapters found and said, and what is still to be measured.

#include "build/address.hpp"
#include "memory/memory.hpp"
#include "verdict/verdict.hpp"

#include <map>
#include <span>
#include <typeindex>

namespace deepstop {

/// What a chapter found of each axle of one setup.
template <class OfCorner>
struct PerAxle {
    OfCorner front;
    OfCorner rear;
    [[nodiscard]] const OfCorner& at(Axle axle) const { return axle == Axle::Front ? front : rear; }
    [[nodiscard]] OfCorner& at(Axle axle) { return axle == Axle::Front ? front : rear; }
};

/// What a chapter found of each side of one axle.
template <class OfOne>
struct PerSide {
    OfOne left;
    OfOne right;
    [[nodiscard]] const OfOne& at(Side side) const { return side == Side::Left ? left : right; }
    [[nodiscard]] OfOne& at(Side side) { return side == Side::Left ? left : right; }
};

/// The same of both setups.
template <class OfSetup>
struct BeforeAfter {
    OfSetup before;
    OfSetup after;
};

/// A reading still missing or only estimated, and how much hangs on it.
struct Question {
    Address address;
    bool missing;
    std::vector<std::string> verdicts; ///< ids of those that rest on it
};

/// Something not yet said that is no reading: a thread, a count, the kind of parking brake.
struct OpenFact {
    std::string what; ///< "thread of the bracket's bolts"
    std::vector<std::string> verdicts; ///< ids of those that wait for it
};

/// Ways out are dear to work out and of no use while a value is still moving.
enum class Remedies { Sought, LeftOut };

/// What it comes to: the worst over both axles and every check of clearance, parts and bolts.
struct Headline {
    enum class Fits { Yes, Tight, WithCaution, Unproven, No };
    enum class Centred { Yes, Unproven, No };
    Fits fits = Fits::Unproven;
    Centred centred = Centred::Unproven; ///< yes only when every corner this setup changes was read and is good
    int readingsMissing = 0; ///< readings and facts that these checks still want
};
[[nodiscard]] std::string_view nameOf(Headline::Fits fits);
[[nodiscard]] std::string_view nameOf(Headline::Centred centred);

/// What chapters found, one of a type.
class Found {
public:
    template <class T>
    [[nodiscard]] const T& of() const
    {
        static const T nothing {};
        const auto it = all_.find(typeid(T));
        if (it == all_.end())
            return nothing;
        NotingScope::note(it->second.looked, it->second.captured);
        return *static_cast<const T*>(it->second.what.get());
    }
    template <class T>
    void keep(T what)
    {
        all_[typeid(T)] = { std::make_shared<const T>(std::move(what)), NotingScope::lookedSoFar(), NotingScope::capturedSoFar() };
    }
    template <class T>
    [[nodiscard]] bool has() const
    {
        return all_.contains(typeid(T));
    }
    void add(const Found& other)
    {
        for (const auto& [type, kept] : other.all_)
            all_.insert_or_assign(type, kept);
    }

private:
    struct Kept {
        std::shared_ptr<const void> what;
        Looked looked; ///< up to then
        NumberSet captured; ///< the same
    };
    std::map<std::type_index, Kept> all_;
};

struct Study {
    std::shared_ptr<const Build> build; ///< everything below points into it
    Remedies remedies = Remedies::Sought; ///< left out, verdicts name none
    UnitSystem system = UnitSystem::Metric; ///< that its sentences are written in
    std::shared_ptr<const Directory> directory;
    SetupParts before;
    SetupParts after;
    std::vector<Verdict> verdicts;
    std::vector<LedgerLine> ledger;
    Found found; ///< what chapters keep for pages, sheets and drawings
    std::vector<Question> questions; ///< most hangs on the first
    std::vector<OpenFact> openFacts; ///< most hangs on the first
    std::shared_ptr<Memory> working; ///< while it is being worked out: what is remembered of the last study and what is added
    std::shared_ptr<const Memory> remembered; ///< afterwards: for the next study
    Headline headline;
    std::string summary; ///< the same and what it gains, in one line
    PerAxle<bool> stays {}; ///< axles whose rotor and caliper stay where they are, and were driven: nothing of them has to be proven again
    bool underWay = false; ///< drawn only so far: what takes its time is still being worked out, and says so

    /// What a chapter found, asked for by its type; one that found nothing is empty.
    template <class Found>
    [[nodiscard]] const Found& of() const
    {
        return found.of<Found>();
    }
    /// Keeps what a chapter found.
    template <class Found>
    void keep(Found what)
    {
        found.keep(std::move(what));
    }
    template <class Found>
    [[nodiscard]] bool has() const
    {
        return found.has<Found>();
    }
    /// What `make` gives, or gave in an earlier study and must give again; the name tells it apart within a study (see Memory).
    template <class Make>
    auto recall(const std::string& name, Make make) const
    {
        return working ? working->recall(name, std::move(make)) : make();
    }

    [[nodiscard]] const Verdict* verdict(std::string_view id) const;
    [[nodiscard]] const Verdict* verdict(const Check& check, const Where& where = {}) const { return verdict(idOf(check, where)); }
    [[nodiscard]] const LedgerLine* line(std::string_view id) const;
    /// The worst verdict of some chapters, the first of equals; null where they say nothing.
    [[nodiscard]] const Verdict* worst(std::span<const std::string_view> chapters) const;
    [[nodiscard]] const Verdict* worst(std::initializer_list<std::string_view> chapters) const { return worst(std::span(chapters)); }
};

/// "front: rotor thickness" and its like for every reading a figure lacks, joined for a sentence.
[[nodiscard]] std::string lacking(const Study& study, const Figure& figure, const std::vector<std::string>& inWords = {});

} // namespace deepstop
