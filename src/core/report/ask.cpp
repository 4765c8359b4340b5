#include "report/ask.hpp"

#include <fmt/format.h>

#include <algorithm>

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
        return address.style.metricDecimals > 0 ? "scale" : "corner scales";
    if (address.style.dimension != Dimension::Length)
        return {};
    if (key.find("runout") != std::string::npos)
        return "dial gauge";
    if (key.ends_with("/rotor/thickness_mm") || key.find("variation") != std::string::npos || key.find("shim") != std::string::npos)
        return "micrometer";
    if (address.style.metricDecimals == 0)
        return "tape";
    return "vernier";
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

std::string joined(const std::vector<std::string>& words)
{
    std::string out;
    for (const auto& word : words)
        out += (out.empty() ? "" : ", ") + word;
    return out;
}

} // namespace

std::vector<Ask> asksOf(const Study& study)
{
    std::vector<Ask> asks;
    const auto setup = placeOfAfter(study);
    for (const Question& q : study.questions) {
        const Reading& reading = *study.directory->at(q.address.pointer)->reading;
        Ask ask { q.address.pointer, q.address.full(), "missing", instrumentFor(q.address), q.verdicts.size(), titlesOf(study, q.verdicts),
            isOfKit(q.address.pointer, setup) };
        if (reading.value)
            ask.now = "estimated " + print(*reading.value, q.address.style, study.system);
        asks.push_back(std::move(ask));
    }
    for (const OpenFact& fact : study.openFacts) {
        const bool scale = fact.what.starts_with("weight of");
        const bool lugs = fact.what.find("knuckle") != std::string::npos || fact.what.find("hub") != std::string::npos
            || fact.what.find("hard line") != std::string::npos;
        const bool ofKit = !lugs && study.after.setup
            && (fact.what.find(study.after.setup->name) != std::string::npos || (!scale && fact.what.find("thread") != std::string::npos));
        asks.push_back({ {}, fact.what, "not said", scale ? "scale" : "", fact.verdicts.size(), titlesOf(study, fact.verdicts), ofKit });
    }
    std::ranges::stable_sort(asks, std::greater<> {}, &Ask::verdicts);
    return asks;
}

std::string nextToRead(const Study& study)
{
    const auto asks = asksOf(study);
    if (asks.empty())
        return {};
    const Ask& first = asks.front();
    constexpr std::size_t named = 3;
    std::vector<std::string> titles(first.titles.begin(), first.titles.begin() + static_cast<std::ptrdiff_t>(std::min(named, first.titles.size())));
    return fmt::format("Next: {}{}: {} for it: {}{}", first.what, first.instrument.empty() ? "" : fmt::format(", with a {}", first.instrument),
        first.verdicts == 1 ? std::string("1 check waits") : fmt::format("{} checks wait", first.verdicts), joined(titles),
        first.titles.size() > named ? fmt::format(" and {} more", first.titles.size() - named) : std::string());
}

std::string benchSheet(const Study& study)
{
    const auto asks = asksOf(study);
    std::string out =
        fmt::format("BENCH SHEET   {}: {} against {}\n", study.build->car.name.empty() ? "unnamed car" : study.build->car.name,
            study.after.setup ? study.after.setup->name : "", study.before.setup ? study.before.setup->name : "");
    if (asks.empty())
        return out + "\nNothing is missing: every check rests on a reading somebody has taken.\n";
    out += fmt::format("{} to find out, most hangs on the first. Rotor seated on a clean hub with\nthree nuts; read twice.\n", asks.size());
    int number = 0;
    for (const Ask& ask : asks) {
        out += fmt::format("\n{:>3}. {}\n", ++number, wrapped(ask.what, 5));
        out += fmt::format("     {}\n",
            wrapped(fmt::format("{}{}; decides {}", ask.now, ask.instrument.empty() ? "" : fmt::format("; take a {}", ask.instrument),
                        joined(ask.titles)),
                5));
        out += "     read: ____________  ± ________  with: ____________  on: ____________\n";
    }
    out += "\nBrakes are life-critical. Stands, not the jack alone; no compressed air on\nbrake dust. The maker's data and local law come "
           "first.\n";
    return out;
}

std::string vendorLetter(const Study& study)
{
    if (!study.after.setup)
        return {};
    const Setup& setup = *study.after.setup;
    std::string out = setup.vendor.empty() ? "" : fmt::format("To {}\n\n", setup.vendor);
    out += fmt::format("{} for the {}\n\nBefore we buy we would like to be sure that the kit fits. Please tell us:\n\n", setup.name,
        study.build->car.name.empty() ? "car" : study.build->car.name);
    int number = 0;
    const auto item = [&](const std::string& text) { out += fmt::format("{:>2}. {}\n", ++number, wrapped(text, 4)); };
    for (const Ask& ask : asksOf(study))
        if (ask.vendorKnows)
            item(ask.now == "missing" || ask.now == "not said"
                    ? ask.what
                    : fmt::format("{} (we reckon with {})", ask.what, ask.now.substr(std::string("estimated ").size())));
    for (const auto& corner : { setup.front, setup.rear }) {
        if (!corner)
            continue;
        if (!corner->costs.kit.value)
            item("price of the kit, and what is in it: both sides of bracket, hoses, bolts, pins, shims");
        if (!corner->costs.rotors.value || !corner->costs.pads.value)
            item("prices of a pair of rotors and of a set of pads, and how long they are to be had");
        break;
    }
    item("tightening torques of every joint, and whether dry, with threadlocker or with anti-seize");
    item("which readings were taken on a part and which come from a drawing");
    return out + "\nThank you.\n";
}

} // namespace deepstop::report
