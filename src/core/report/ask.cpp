#include "report/ask.hpp"

#include "language/language.hpp"
#include "quantity/text.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <optional>
#include <utility>

namespace deepstop::report {
namespace {

/// Where the setup after lies in the file, with its slash; empty in a build without setups.
std::string placeOfAfter(const Study& study)
{
    for (std::size_t i = 0; i < study.build->setups.size(); ++i)
        if (&study.build->setups[i] == study.after.setup)
            return fmt::format("/setups/{}/", i);
    return {};
}

/// The parts whose maker knows; what depends on this car he does not.
bool isOfKit(const std::string& pointer, const std::string& setup)
{
    if (setup.empty() || !pointer.starts_with(setup) || pointer.find("/left/") != std::string::npos
        || pointer.find("/right/") != std::string::npos)
        return false;
    for (const char* part : { "/rotor/", "/caliper/", "/pad/", "/bracket/", "/hose/", "/costs/", "/mount/", "/weighings/", "/drum/" })
        if (pointer.find(part) != std::string::npos)
            return true;
    return false;
}

/// The least instrument that serves a style's last figure; common practice.
std::string instrumentFor(const Address& address)
{
    const auto& key = address.pointer;
    if (address.style.dimension == Dimension::Mass)
        return address.style.metricDecimals > 0 ? tr("scale") : tr("corner scales");
    if (address.style.dimension != Dimension::Length)
        return {};
    if (key.find("runout") != std::string::npos)
        return tr("dial gauge");
    if (key.ends_with("/rotor/thickness_mm") || key.find("variation") != std::string::npos || key.find("shim") != std::string::npos)
        return tr("micrometer");
    if (address.style.metricDecimals == 0)
        return tr("tape");
    return tr("vernier");
}

std::vector<std::string> titlesOf(const Study& study, const std::vector<std::string>& ids)
{
    std::vector<std::string> titles;
    for (const auto& id : ids)
        if (const Verdict* v = study.verdict(id))
            titles.push_back(v->title);
    return titles;
}

std::string wrapped(const std::string& text, std::size_t indent, std::size_t width = 78)
{
    std::string out;
    std::size_t column = indent;
    for (std::size_t at = 0; at < text.size();) {
        const auto end = std::min(text.find(' ', at), text.size());
        if (column > indent && column + 1 + end - at > width) {
            out += "\n" + std::string(indent, ' ');
            column = indent;
        } else if (column > indent) {
            out += ' ';
            ++column;
        }
        out += text.substr(at, end - at);
        column += end - at;
        at = end + 1;
    }
    return out;
}

} // namespace

std::vector<Ask> asksOf(const Study& study)
{
    std::vector<Ask> asks;
    const auto setup = placeOfAfter(study);
    for (const Question& q : study.questions) {
        const Reading& reading = *study.directory->at(q.address.pointer)->reading;
        Ask ask { q.address.pointer, q.address.full(), tr("missing"), instrumentFor(q.address), q.verdicts.size(),
            titlesOf(study, q.verdicts), isOfKit(q.address.pointer, setup) };
        if (reading.value) {
            ask.estimate = print(*reading.value, q.address.style, study.system);
            ask.now = reading.known == Known::Design ? tr("design {}", ask.estimate) : tr("estimated {}", ask.estimate);
        }
        asks.push_back(std::move(ask));
    }
    for (const OpenFact& fact : study.openFacts) {
        const bool scale = fact.what.starts_with(tr("weight of"));
        const bool lugs = fact.what.find(tr("knuckle")) != std::string::npos || fact.what.find(tr("hub")) != std::string::npos
            || fact.what.find(tr("hard line")) != std::string::npos;
        const bool ofKit = !lugs && study.after.setup
            && (fact.what.find(study.after.setup->name) != std::string::npos
                || (!scale && fact.what.find(tr("thread")) != std::string::npos));
        asks.push_back(
            { {}, fact.what, tr("not said"), scale ? "scale" : "", fact.verdicts.size(), titlesOf(study, fact.verdicts), ofKit });
    }
    std::ranges::stable_sort(asks, std::greater<> {}, &Ask::verdicts);
    return asks;
}

namespace {

/// The verdict without a figure that is nearest to one: what decides whether it fits first, then what lacks least.
const Verdict* nearestVerdict(const Study& study)
{
    const auto weight = [](const Verdict& v) {
        const Decides decides = v.check ? v.check->decides : Decides::Nothing;
        return decides == Decides::FitNeeded || decides == Decides::CentringNeeded ? 0 : decides != Decides::Nothing ? 1 : 2;
    };
    const Verdict* nearest = nullptr;
    for (const Verdict& v : study.verdicts)
        if (!v.figure.lacks.empty()
            && (!nearest || std::pair { weight(v), v.figure.lacks.size() } < std::pair { weight(*nearest), nearest->figure.lacks.size() }))
            nearest = &v;
    return nearest;
}

} // namespace

std::optional<NextReading> nextReading(const Study& study)
{
    const auto asks = asksOf(study);
    if (asks.empty())
        return {};
    const auto askOf = [&](const std::string& pointer) { return std::ranges::find(asks, pointer, &Ask::pointer); };
    NextReading next { asks.front(), {}, 0 };
    if (const Verdict* v = nearestVerdict(study)) {
        next.settles = v->check && v->check->of != CheckOf::Car
            ? fmt::format("{} ({})", v->title, v->axle == Axle::Front ? "front" : "rear")
            : v->title;
        next.more = v->figure.lacks.size();
        std::size_t most = 0;
        for (const ReadingId reading : v->figure.lacks)
            if (const Address* address = study.directory->of(reading))
                if (const auto ask = askOf(address->pointer); ask != asks.end() && ask->verdicts > most) {
                    most = ask->verdicts;
                    next.ask = *ask;
                }
    }
    return next;
}

std::string nextToRead(const Study& study)
{
    const auto next = nextReading(study);
    if (!next)
        return {};
    const auto with = next->ask.instrument.empty() ? std::string() : tr(", with a {}", next->ask.instrument);
    if (next->more == 1)
        return tr("Next: {}{}: it settles {}", next->ask.what, with, next->settles);
    if (next->more > 1)
        return tr("Next: {}{}: with {} more it settles {}", next->ask.what, with, next->more - 1, next->settles);
    return tr("Next: {}{}: {} for it: {}", next->ask.what, with,
        next->ask.verdicts == 1 ? std::string(tr("1 check waits")) : tr("{} checks wait", next->ask.verdicts), listed(next->ask.titles));
}

std::string benchSheet(const Study& study)
{
    const auto asks = asksOf(study);
    std::string out = tr("BENCH SHEET   {}: {} against {}\n", study.build->car.name.empty() ? tr("unnamed car") : study.build->car.name,
        study.after.setup ? study.after.setup->name : "", study.before.setup ? study.before.setup->name : "");
    if (asks.empty())
        return tr("{}\nNothing is missing: every check rests on a reading somebody has taken.\n", out);
    out += tr("{} to find out, most hangs on the first. Rotor seated on a clean hub with\nthree nuts; read twice.\n", asks.size());
    int number = 0;
    for (const Ask& ask : asks) {
        out += fmt::format("\n{:>3}. {}\n", ++number, wrapped(ask.what, 5));
        out += fmt::format("     {}\n",
            wrapped(
                tr("{}{}; decides {}", ask.now, ask.instrument.empty() ? "" : tr("; take a {}", ask.instrument), listed(ask.titles)), 5));
        out += tr("     read: ____________  ± ________  with: ____________  on: ____________\n");
    }
    out +=
        tr("\nBrakes are life-critical. Stands, not the jack alone; no compressed air on\nbrake dust. The maker's data and local law come "
           "first.\n");
    return out;
}

bool sameQuestion(const std::string& about, const std::string& question)
{
    // What we reckon with meanwhile is no part of the question.
    const auto bare = [](const std::string& text) { return text.substr(0, text.find(tr(" (we work with"))); };
    return bare(about) == bare(question);
}

Edit questionsAsked(const Study& study, const std::string& date)
{
    return [setup = study.after.setup ? study.after.setup->id : std::string(), asked = questionsFor(study), date](
               const Build& now) -> std::optional<Build> {
        Build build = now;
        Setup* own = setupIn(build, setup);
        if (!own)
            return {};
        for (const std::string& question : asked) {
            const auto there =
                std::ranges::find_if(own->questions, [&](const VendorQuestion& q) { return sameQuestion(q.about, question); });
            if (there == own->questions.end())
                own->questions.push_back({ question, date, {}, {}, {} });
            else if (there->asked.empty())
                there->asked = date;
        }
        return build;
    };
}

std::vector<std::string> questionsFor(const Study& study)
{
    std::vector<std::string> questions;
    if (!study.after.setup)
        return questions;
    for (const Ask& ask : asksOf(study))
        if (ask.vendorKnows)
            questions.push_back(ask.estimate.empty() ? ask.what : tr("{} (we work with {})", ask.what, ask.estimate));
    for (const auto& corner : { study.after.setup->front, study.after.setup->rear }) {
        if (!corner)
            continue;
        if (!corner->costs.kit.value)
            questions.emplace_back(tr("price of the kit, and what is in it: both sides of bracket, hoses, bolts, pins, shims"));
        if (!corner->costs.rotors.value || !corner->costs.pads.value)
            questions.emplace_back(tr("prices of a pair of rotors and of a set of pads, and how long they are to be had"));
        break;
    }
    if (study.after.setup->instructions == YesNo::No)
        questions.emplace_back(tr("fitting instructions: none came with the kit"));
    else if (study.after.setup->instructions == YesNo::Unknown)
        questions.emplace_back(tr("fitting instructions, if there are any"));
    questions.emplace_back(tr("tightening torques of every joint, and whether dry, with threadlocker or with anti-seize"));
    questions.emplace_back(tr("which readings were taken on a part and which come from a drawing"));
    // What the vendor has answered is not asked again.
    std::erase_if(questions, [&](const std::string& question) {
        return std::ranges::any_of(
            study.after.setup->questions, [&](const VendorQuestion& q) { return !q.answered.empty() && sameQuestion(q.about, question); });
    });
    for (const VendorQuestion& own : study.after.setup->questions)
        if (own.answered.empty() && !own.about.empty()
            && std::ranges::none_of(questions, [&](const std::string& question) { return sameQuestion(own.about, question); }))
            questions.push_back(own.about);
    return questions;
}

std::string vendorLetter(const Study& study)
{
    if (!study.after.setup)
        return {};
    const Setup& setup = *study.after.setup;
    std::string out = setup.vendor.empty() ? "" : tr("To {}\n\n", setup.vendor);
    out += tr("{} for the {}\n\nBefore we buy we would like to be sure that the kit fits. Please tell us:\n\n", setup.name,
        study.build->car.name.empty() ? tr("car") : study.build->car.name);
    int number = 0;
    for (const auto& question : questionsFor(study))
        out += fmt::format("{:>2}. {}\n", ++number, wrapped(question, 4));
    return tr("{}\nThank you.\n", out);
}

} // namespace deepstop::report
