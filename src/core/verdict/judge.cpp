#include "verdict/judge.hpp"

#include "build/words.hpp"
#include "language/language.hpp"
#include <fmt/format.h>

#include <algorithm>

namespace deepstop {

std::string_view nameOf(Level level)
{
    switch (level) {
    case Level::Clear:
        return marked("clear");
    case Level::Good:
        return marked("good");
    case Level::Unproven:
        return marked("unproven");
    case Level::Tight:
        return marked("tight");
    case Level::Caution:
        return marked("caution");
    case Level::Hits:
        return marked("hits");
    case Level::Stop:
        return marked("stop");
    }
    return "";
}

const Verdict* Study::verdict(std::string_view id) const
{
    const auto it = std::ranges::find(verdicts, id, &Verdict::id);
    return it == verdicts.end() ? nullptr : &*it;
}

const LedgerLine* Study::line(std::string_view id) const
{
    const auto it = std::ranges::find(ledger, id, &LedgerLine::id);
    return it == ledger.end() ? nullptr : &*it;
}

const Verdict* Study::worst(std::span<const std::string_view> chapters) const
{
    const Verdict* worst = nullptr;
    for (const Verdict& v : verdicts)
        if (std::ranges::find(chapters, v.chapter) != chapters.end() && (!worst || v.level > worst->level))
            worst = &v;
    return worst;
}

namespace judge {

Verdict worseSide(Verdict left, Verdict right)
{
    const auto rank = [](const Verdict& v) { return std::pair { isBad(v.level) ? 2 : v.level == Level::Unproven ? 1 : 0, v.level }; };
    const bool rightSpeaks = rank(right) > rank(left);
    Verdict& worse = rightSpeaks ? right : left;
    const Verdict& other = rightSpeaks ? left : right;
    if (left.level != right.level || left.figure.value != right.figure.value || !left.figure.value) {
        worse.side = rightSpeaks ? Side::Right : Side::Left;
        worse.reason = fmt::format("{}: {}", rightSpeaks ? tr("Right") : tr("Left"), worse.reason);
    }
    mergeDependencies(worse.figure, other.figure);
    worse.figure.effects.resize(worse.figure.value ? worse.figure.restsOn.size() : 0);
    for (const std::string& each : other.lacksInWords)
        if (std::ranges::find(worse.lacksInWords, each) == worse.lacksInWords.end())
            worse.lacksInWords.push_back(each);
    return std::move(worse);
}

Verdict gapVerdict(const Check& check, const Where& where, std::string title, Figure figure)
{
    Verdict v = verdictOf(check, where);
    v.title = std::move(title);
    v.style = style::gap;
    v.figure = std::move(figure);
    return v;
}

Verdict& startGapVerdict(Study& study, const Check& check, const Where& where, std::string title, Figure figure)
{
    study.verdicts.push_back(gapVerdict(check, where, std::move(title), std::move(figure)));
    return study.verdicts.back();
}

std::string wordFor(Axle axle) { return std::string(tr(wordOf(axle))); }
std::string wordFor(Side side) { return std::string(tr(wordOf(side))); }
std::string wordFor(Level level) { return std::string(tr(nameOf(level))); }

std::vector<Axle> axlesOf(const Study& study)
{
    std::vector<Axle> axles;
    if (study.after.setup && study.after.setup->front)
        axles.push_back(Axle::Front);
    if (study.after.setup && study.after.setup->rear)
        axles.push_back(Axle::Rear);
    return axles.empty() ? std::vector { Axle::Front } : axles;
}

std::string percentOf(double share) { return print(share, style::share, UnitSystem::Metric); }

std::string percentChange(double after, double before)
{
    const auto text = figure(after / before - 1, style::share, UnitSystem::Metric);
    return (text.starts_with("\u2212") || text == "0" ? text : "+" + text) + " %";
}

LedgerLine ledgerLine(std::string id, std::string title, const Style& style, const Figure& before, const Figure& after, Figure change)
{
    LedgerLine line;
    line.id = std::move(id);
    line.title = std::move(title);
    line.style = style;
    line.before = before;
    line.after = after;
    if (before.value && after.value)
        line.change = std::move(change);
    return line;
}

std::string changeWord(const Study& study, const LedgerLine& line)
{
    return line.change.value ? printChange(*line.change.value, line.style, study.system) : std::string(tr(nameOf(Level::Unproven)));
}

std::string joined(const std::vector<std::string>& words, std::size_t most)
{
    std::string text;
    for (std::size_t i = 0; i < words.size() && i < most; ++i)
        text += (i == 0 ? "" : ", ") + words[i];
    if (words.size() > most)
        text += tr(" and {} more", words.size() - most);
    return text;
}

namespace {

std::vector<std::string> names(const Study& study, const std::vector<ReadingId>& readings)
{
    std::vector<std::string> out;
    for (const ReadingId reading : readings)
        if (const Address* address = study.directory->of(reading))
            out.push_back(address->full());
    return out;
}

} // namespace

std::string estimatedIn(const Study& study, const Figure& figure)
{
    if (!figure.value || !figure.provisional())
        return {};
    auto words = figure.assumed;
    std::ranges::copy(names(study, figure.estimated), std::back_inserter(words));
    const bool drawnOnly = figure.assumed.empty() && std::ranges::all_of(figure.estimated, [&](ReadingId each) {
        const auto* entry = study.directory->find(each);
        return entry && entry->reading->value && entry->reading->known == Known::Design;
    });
    return drawnOnly ? tr("not read on the made parts yet: {}", joined(words, 2)) : tr("rests on an estimate: {}", joined(words, 2));
}

void restAlsoOn(Figure& figure, const Figure& also)
{
    mergeDependencies(figure, also);
    figure.effects.clear();
}

bool unproven(const Study& study, Verdict& verdict)
{
    if (verdict.figure.value && !verdict.figure.provisional())
        return false;
    verdict.level = Level::Unproven;
    verdict.reason = verdict.figure.value ? estimatedIn(study, verdict.figure) : lacking(study, verdict.figure, verdict.lacksInWords);
    return true;
}

void rate(const Study& study, Verdict& v, const Allowance& room)
{
    const Figure& f = v.figure;
    if (!f.value) {
        v.reason = lacking(study, f, v.lacksInWords);
        return;
    }
    const auto say = [&](double length) { return print(std::abs(length), v.style, study.system); };
    if (f.highest() < room.least) {
        v.level = Level::Stop;
        v.reason = tr("{}: {} too small", room.tooSmall, say(room.least - *f.value));
    } else if (f.lowest() > room.hopeless) {
        v.level = Level::Stop;
        v.reason = tr("{}: {} too large", room.tooLarge, say(*f.value - std::max(0.0, room.least)));
    } else if (unproven(study, v)) {
        return;
    } else if (f.lowest() < room.least) {
        v.level = Level::Caution;
        v.reason = tr("{} at worst: {}", print(f.lowest(), v.style, study.system), room.tooSmall);
    } else if (f.highest() > room.most) {
        v.level = Level::Caution;
        v.reason = tr("{} at most: {}", print(f.highest(), v.style, study.system), room.tooLarge);
    } else {
        v.level = Level::Good;
        v.reason = tr("{} clearance, {} at worst", print(*f.value, v.style, study.system), print(f.lowest(), v.style, study.system));
    }
}

std::string gapReason(const Study& study, const Figure& gap, double wanted, const std::vector<std::string>& lacksInWords)
{
    const auto say = [&](double length) { return print(length, style::gap, study.system); };
    if (!gap.value)
        return lacking(study, gap, lacksInWords);
    if (gap.highest() <= 0)
        return tr("Overlaps by {}, at least {}", say(-*gap.value), say(-gap.highest()));
    if (gap.provisional())
        return tr("{}, but {}", say(*gap.value), estimatedIn(study, gap));
    const auto worst = tr("{} at worst, {} wanted", say(gap.lowest()), say(wanted));
    return gap.lowest() > 0 ? worst : tr("May touch: {} nominal, {}", say(*gap.value), worst);
}

} // namespace judge

std::shared_ptr<const Build> Remedy::in(const Build& build) const { return applied(edit, build); }

Level gapLevel(const Figure& gap, double wanted)
{
    if (!gap.value)
        return Level::Unproven;
    if (gap.highest() <= 0)
        return Level::Hits;
    if (gap.provisional())
        return Level::Unproven;
    if (gap.lowest() >= wanted)
        return Level::Clear;
    return gap.lowest() > 0 ? Level::Tight : Level::Hits;
}

std::string lacking(const Study& study, const Figure& figure, const std::vector<std::string>& inWords)
{
    auto words = judge::names(study, figure.lacks);
    std::ranges::copy(inWords, std::back_inserter(words));
    if (words.empty())
        return tr("The readings contradict each other: no such part can be");
    return tr("Lacks {}", judge::joined(words));
}

} // namespace deepstop
