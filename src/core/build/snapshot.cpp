#include "build/snapshot.hpp"

#include <algorithm>

namespace deepstop {
namespace {

template <class T>
using SharedList = std::shared_ptr<const std::vector<std::shared_ptr<const T>>>;

/// The list, its elements shared with `before` where they are equal: at the same place from the front, or from the back, so that one put
/// in or taken out leaves the others shared.
template <class T>
SharedList<T> sharedWith(const std::vector<T>& list, const SharedList<T>& before)
{
    static const std::vector<std::shared_ptr<const T>> none;
    const auto& was = before ? *before : none;
    std::size_t front = 0;
    while (front < list.size() && front < was.size() && list[front] == *was[front])
        ++front;
    if (before && front == list.size() && front == was.size())
        return before;
    std::size_t back = 0;
    while (front + back < list.size() && front + back < was.size() && list[list.size() - 1 - back] == *was[was.size() - 1 - back])
        ++back;
    auto kept = std::make_shared<std::vector<std::shared_ptr<const T>>>(list.size());
    for (std::size_t i = 0; i < list.size(); ++i) {
        const bool sameSize = list.size() == was.size();
        if (i < front)
            (*kept)[i] = was[i];
        else if (i >= list.size() - back)
            (*kept)[i] = was[was.size() - (list.size() - i)];
        else if (sameSize && list[i] == *was[i])
            (*kept)[i] = was[i];
        else
            (*kept)[i] = std::make_shared<const T>(list[i]);
    }
    return kept;
}

template <class T>
std::vector<T> unpacked(const SharedList<T>& list)
{
    std::vector<T> all;
    all.reserve(list->size());
    for (const auto& each : *list)
        all.push_back(*each);
    return all;
}

template <class T>
std::size_t ownOf(const SharedList<T>& list, const SharedList<T>& before)
{
    return static_cast<std::size_t>(
        std::ranges::count_if(*list, [&](const auto& each) { return std::ranges::find(*before, each) == before->end(); }));
}

/// What is no list of its own, and the session without its stops.
Build withoutLists(const Build& build)
{
    Build rest;
    rest.currency = build.currency;
    rest.car = build.car;
    rest.frontHub = build.frontHub;
    rest.rearHub = build.rearHub;
    rest.wants = build.wants;
    rest.duties = build.duties;
    rest.loads = build.loads;
    rest.drawer = build.drawer;
    return rest;
}

TestSession withoutStops(TestSession session)
{
    session.stops.clear();
    return session;
}

} // namespace

std::shared_ptr<const Snapshot> Snapshot::of(const Build& build, const Snapshot* before)
{
    static const Snapshot none {};
    const Snapshot& was = before ? *before : none;
    auto taken = std::make_shared<Snapshot>();
    auto rest = withoutLists(build);
    taken->rest_ = was.rest_ && *was.rest_ == rest ? was.rest_ : std::make_shared<const Build>(std::move(rest));
    taken->wheels_ = sharedWith(build.wheels, was.wheels_);
    taken->setups_ = sharedWith(build.setups, was.setups_);
    taken->mockUps_ = sharedWith(build.mockUps, was.mockUps_);
    taken->cards_ = sharedWith(build.cards, was.cards_);
    taken->log_ = sharedWith(build.log, was.log_);
    std::vector<TestSession> sessions;
    sessions.reserve(build.tests.size());
    for (const TestSession& each : build.tests)
        sessions.push_back(withoutStops(each));
    taken->sessions_ = sharedWith(sessions, was.sessions_);
    for (std::size_t i = 0; i < build.tests.size(); ++i)
        taken->stops_.push_back(sharedWith(build.tests[i].stops, i < was.stops_.size() ? was.stops_[i] : nullptr));
    return taken;
}

Build Snapshot::build() const
{
    Build build = *rest_;
    build.wheels = unpacked(wheels_);
    build.setups = unpacked(setups_);
    build.mockUps = unpacked(mockUps_);
    build.cards = unpacked(cards_);
    build.log = unpacked(log_);
    build.tests = unpacked(sessions_);
    for (std::size_t i = 0; i < stops_.size(); ++i)
        build.tests[i].stops = unpacked(stops_[i]);
    return build;
}

std::size_t Snapshot::ownElements(const Snapshot& before) const
{
    auto own = ownOf(wheels_, before.wheels_) + ownOf(setups_, before.setups_) + ownOf(mockUps_, before.mockUps_)
        + ownOf(cards_, before.cards_) + ownOf(log_, before.log_) + ownOf(sessions_, before.sessions_);
    for (std::size_t i = 0; i < stops_.size(); ++i)
        own += i < before.stops_.size() ? ownOf(stops_[i], before.stops_[i]) : stops_[i]->size();
    return own;
}

} // namespace deepstop
