#include "study/study.hpp"

#include "language/language.hpp"
#include "study/chapters.hpp"
#include "task/cancel.hpp"

#include <algorithm>
#include <future>
#include <map>
#include <ranges>

namespace deepstop {
namespace {

const Setup& chosen(const Build& build, const std::string& id, std::size_t otherwise)
{
    if (const Setup* setup = findSetup(build, id))
        return *setup;
    return build.setups[std::min(otherwise, build.setups.size() - 1)];
}

std::vector<Question> questionsOf(const Study& study)
{
    std::map<ReadingId, std::vector<std::string>> hanging;
    for (const Verdict& v : study.verdicts)
        for (const auto* readings : { &v.figure.lacks, &v.figure.estimated })
            for (const ReadingId reading : *readings)
                hanging[reading].push_back(v.id);
    std::vector<Question> questions;
    for (const auto& [reading, verdicts] : hanging)
        if (const auto* entry = study.directory->find(reading))
            questions.push_back({ entry->address, !entry->reading->value, verdicts });
    std::ranges::sort(questions, [](const Question& a, const Question& b) {
        return std::tuple { -static_cast<int>(a.verdicts.size()), !a.missing, a.address.pointer }
        < std::tuple { -static_cast<int>(b.verdicts.size()), !b.missing, b.address.pointer };
    });
    return questions;
}

std::vector<OpenFact> openFactsOf(const Study& study)
{
    std::map<std::string, std::vector<std::string>> hanging;
    for (const Verdict& v : study.verdicts)
        for (const std::string& what : v.lacksInWords)
            hanging[what].push_back(v.id);
    std::vector<OpenFact> facts;
    for (auto& [what, verdicts] : hanging)
        facts.push_back({ what, std::move(verdicts) });
    std::ranges::stable_sort(facts, std::greater<> {}, [](const OpenFact& f) { return f.verdicts.size(); });
    return facts;
}

/// A study without findings: which parts are compared, and what is remembered of the last.
Study begun(std::shared_ptr<const Build> build, const StudyOf& of)
{
    Study s;
    s.build = numbered(std::move(build));
    s.system = of.system;
    s.remedies = of.remedies;
    s.directory = of.last ? std::make_shared<Directory>(*s.build, *of.last->directory) : std::make_shared<Directory>(*s.build);
    if (!s.build->setups.empty()) {
        s.before = partsOf(*s.build, chosen(*s.build, of.pair.before, 0));
        s.after = partsOf(*s.build, chosen(*s.build, of.pair.after, 1));
    }
    const auto sameSetup = [](const SetupParts& a, const SetupParts& b) { return a.setup && b.setup && a.setup->id == b.setup->id; };
    const Study* last = of.last.get();
    s.working = last && last->remembered && last->system == s.system && sameSetup(s.before, last->before) && sameSetup(s.after, last->after)
            && s.directory->sameShape(*last->directory)
        ? std::make_shared<Memory>(*last->remembered, s.directory->changedSince(*last->directory))
        : std::make_shared<Memory>(s.directory->entries().size());
    return s;
}

/// What a chapter said and found, once.
struct Said {
    std::vector<Verdict> verdicts;
    std::vector<LedgerLine> ledger;
    Found found;
    std::weak_ptr<const Build> of; ///< whose study it was
};

/// Lets a chapter speak, where what it looked at says anything new.
std::shared_ptr<const Said> heard(const Chapter& chapter, const Study& s)
{
    const std::string name = std::string(chapter.id) + (s.remedies == Remedies::Sought ? "" : tr(", without remedies"));
    return s.recall(name, [&] {
        Study own;
        own.build = s.build;
        own.system = s.system;
        own.remedies = s.remedies;
        own.directory = s.directory;
        own.before = s.before;
        own.after = s.after;
        own.working = s.working;
        chapter.add(own);
        Said said { std::move(own.verdicts), std::move(own.ledger), std::move(own.found), s.build };
        for (Verdict& v : said.verdicts)
            v.chapter = chapter.id;
        for (LedgerLine& line : said.ledger)
            line.chapter = chapter.id;
        return std::make_shared<const Said>(std::move(said));
    });
}

void put(const Chapter& chapter, Study& s, const Said& said)
{
    s.verdicts.insert(s.verdicts.end(), said.verdicts.begin(), said.verdicts.end());
    s.ledger.insert(s.ledger.end(), said.ledger.begin(), said.ledger.end());
    s.found.add(said.found);
    if (chapter.settle && said.of.lock() != s.build)
        chapter.settle(s);
}

/// Draws it, and has what it said last time stand as being worked out.
void draw(const Chapter& chapter, Study& s, const Study& last)
{
    chapter.draw(s);
    const std::string working = tr("being worked out");
    for (const Verdict& was : last.verdicts)
        if (was.chapter == chapter.id) {
            Verdict& v = s.verdicts.emplace_back();
            v.id = was.id;
            v.chapter = was.chapter;
            v.axle = was.axle;
            v.title = was.title;
            v.style = was.style;
            v.reason = working;
        }
    for (const LedgerLine& was : last.ledger)
        if (was.chapter == chapter.id) {
            LedgerLine& line = s.ledger.emplace_back();
            line.id = was.id;
            line.chapter = was.chapter;
            line.title = was.title;
            line.style = was.style;
            line.word = working;
        }
}

Study studied(std::shared_ptr<const Build> build, const StudyOf& of)
{
    Study s = begun(std::move(build), of);
    if (!s.before.setup)
        return s;
    // No chapter looks at another, so those that take long are worked out beside the others.
    std::map<int, std::future<std::vector<std::shared_ptr<const Said>>>> beside;
    const auto onThread = [&s](int thread) {
        std::vector<std::shared_ptr<const Said>> all;
        for (const Chapter& chapter : chapters())
            if (chapter.thread == thread) {
                endIfCancelled();
                all.push_back(heard(chapter, s));
            }
        return all;
    };
    for (const Chapter& chapter : chapters())
        if (chapter.thread > 0 && !beside.contains(chapter.thread))
            beside.emplace(chapter.thread, std::async(std::launch::async, [&onThread, thread = chapter.thread, flag = CancelScope::flag()] {
                const CancelScope scope(flag);
                return onThread(thread);
            }));
    std::map<int, std::vector<std::shared_ptr<const Said>>> said;
    said[0] = onThread(0);
    for (auto& [thread, each] : beside)
        said[thread] = each.get();
    std::map<int, std::size_t> next;
    for (const Chapter& chapter : chapters())
        put(chapter, s, *said[chapter.thread][next[chapter.thread]++]);
    endIfCancelled();
    proveByRoad(s);
    s.questions = questionsOf(s);
    s.openFacts = openFactsOf(s);
    s.headline = headlineOf(s);
    s.summary = summaryOf(s);
    s.remembered = std::exchange(s.working, nullptr);
    return s;
}

} // namespace

std::optional<Study> study(std::shared_ptr<const Build> build, const StudyOf& of, const std::atomic<bool>& unwanted)
{
    const CancelScope scope(&unwanted);
    try {
        return studied(std::move(build), of);
    } catch (const Cancelled&) {
        return {};
    }
}

Study drawn(std::shared_ptr<const Build> build, const StudyOf& of, const Study& last)
{
    Study s = begun(std::move(build), of);
    if (!s.before.setup)
        return s;
    for (const Chapter& chapter : chapters())
        if (chapter.draw)
            draw(chapter, s, last);
        else
            put(chapter, s, *heard(chapter, s));
    s.working = nullptr;
    s.underWay = true;
    s.summary = tr("Being worked out");
    return s;
}

Study study(std::shared_ptr<const Build> build, const SetupPair& pair, UnitSystem system, Remedies remedies)
{
    return *study(std::move(build), StudyOf { pair, system, remedies, nullptr }, false);
}

Study study(const Build& build, const SetupPair& pair, UnitSystem system)
{
    return study(std::make_shared<const Build>(build), pair, system);
}

} // namespace deepstop
