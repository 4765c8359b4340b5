#include "study/study.hpp"

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

/// A study without findings: which parts are compared.
Study begun(std::shared_ptr<const Build> build, const StudyOf& of)
{
    Study s;
    s.build = std::move(build);
    s.system = of.system;
    s.remedies = of.remedies;
    s.directory = of.alike ? std::make_shared<Directory>(*s.build, *of.alike) : std::make_shared<Directory>(*s.build);
    if (!s.build->setups.empty()) {
        s.before = partsOf(*s.build, chosen(*s.build, of.pair.before, 0));
        s.after = partsOf(*s.build, chosen(*s.build, of.pair.after, 1));
    }
    return s;
}

/// Lets a chapter speak.
void add(const Chapter& chapter, Study& s)
{
    const std::size_t verdicts = s.verdicts.size();
    const std::size_t lines = s.ledger.size();
    chapter.add(s);
    for (std::size_t i = verdicts; i < s.verdicts.size(); ++i)
        s.verdicts[i].chapter = chapter.id;
    for (std::size_t i = lines; i < s.ledger.size(); ++i)
        s.ledger[i].chapter = chapter.id;
}

/// Draws it, and has what it said last time stand as being worked out.
void draw(const Chapter& chapter, Study& s, const Study& last)
{
    chapter.draw(s);
    const std::string working = "being worked out";
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
    // No chapter looks at another, so those that take long are worked out beside the others, and put in where they belong.
    struct Apart {
        std::future<Study> study;
        std::size_t verdict;
        std::size_t line;
    };
    std::vector<Apart> apart;
    for (const Chapter& chapter : chapters())
        if (chapter.apart)
            apart.push_back({ std::async(std::launch::async,
                                  [&chapter, own = s, flag = CancelScope::flag()]() mutable {
                                      const CancelScope scope(flag);
                                      add(chapter, own);
                                      return std::move(own);
                                  }),
                0, 0 });
    auto next = apart.begin();
    for (const Chapter& chapter : chapters()) {
        endIfCancelled();
        if (chapter.apart) {
            next->verdict = s.verdicts.size();
            (next++)->line = s.ledger.size();
        } else {
            add(chapter, s);
        }
    }
    for (Apart& each : std::views::reverse(apart)) {
        Study own = each.study.get();
        s.keepAll(own);
        const auto put = [](auto& into, std::size_t at, auto& from) {
            into.insert(
                into.begin() + static_cast<std::ptrdiff_t>(at), std::make_move_iterator(from.begin()), std::make_move_iterator(from.end()));
        };
        put(s.verdicts, each.verdict, own.verdicts);
        put(s.ledger, each.line, own.ledger);
    }
    endIfCancelled();
    s.questions = questionsOf(s);
    s.openFacts = openFactsOf(s);
    s.headline = headlineOf(s);
    s.summary = summaryOf(s);
    s.common = {};
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
            add(chapter, s);
    s.common = {};
    s.underWay = true;
    s.summary = "Being worked out";
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
