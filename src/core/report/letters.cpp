#include "report/letters.hpp"

#include "build/words.hpp"
#include "chapters/parts/receiving.hpp"
#include "files/photo.hpp"
#include "files/refusal.hpp"
#include "jobcard/jobcard.hpp"
#include "language/language.hpp"
#include "quantity/text.hpp"
#include "report/ask.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <utility>

namespace deepstop::report {
namespace {

std::string carOf(const Study& study) { return study.build->car.name.empty() ? std::string(tr("car")) : study.build->car.name; }

/// Sorts what was ticked by what it did to the parts.
class Done {
public:
    explicit Done(const Study& study) : study_(study), id_(study.after.setup->id) { }

    std::string sentences()
    {
        ticks();
        std::string out;
        add(out, tr("Cut, drilled or ground"), cut_);
        add(out, tr("Fitted"), fitted_);
        add(out, tr("Put on loose, to try it"), tried_);
        add(out, tr("Also done"), also_);
        if (others_ > 0)
            out += others_ == 1 ? std::string(tr("1 more step was ticked that the job card no longer holds.")) + " "
                                : tr("{} more steps were ticked that the job card no longer holds.", others_) + " ";
        days(out);
        if (out.empty())
            return tr("Our records show nothing fitted, drilled or altered.");
        out.pop_back();
        return out;
    }

private:
    void ticks()
    {
        for (const MockUp& m : study_.build->mockUps) {
            const bool read = m.innerTop.value || m.outerTop.value || m.innerBottom.value || m.outerBottom.value;
            if (m.setup == id_ && (read || !m.passes.empty()))
                tried_.push_back(fmt::format("{} {}", tr(wordOf(m.axle)), tr(wordOf(m.side))));
        }
        const auto card = jobcard::cardOf(study_);
        for (const Tick& tick : jobcard::choicesOf(*study_.build, id_).ticks) {
            if (tick.state == Checked::Open)
                continue;
            const jobcard::Step* step = card.step(tick.step);
            using enum jobcard::Phase;
            if (!step)
                ++others_;
            else if (step->own)
                also_.push_back(step->text);
            else if (step->irreversible)
                cut_.push_back(step->corner + ": " + step->text);
            else if (step->phase == MockUp)
                tried_.push_back(step->corner);
            else if (step->phase >= Assemble)
                fitted_.push_back(step->corner + ": " + step->text);
        }
    }
    /// Each once.
    static void add(std::string& out, const char* what, const std::vector<std::string>& list)
    {
        std::vector<std::string> named;
        for (const auto& one : list)
            if (std::ranges::find(named, one) == named.end())
                named.push_back(one);
        if (named.empty())
            return;
        out += what;
        out += ": " + listed(named, "; ") + ". ";
    }
    void days(std::string& out) const
    {
        for (const LogEntry& e : study_.build->log)
            if (e.setup == id_)
                out += fmt::format("{} {}. ", e.event == LogEvent::PartsOn ? tr("Put on the car") : tr("In the car's log"), e.date);
        for (const TestSession& t : study_.build->tests)
            if (t.setup == id_ && (!t.stops.empty() || !t.temperatures.empty()))
                out += tr("Braked with on a test {}.", t.date) + " ";
    }

    const Study& study_;
    const std::string& id_;
    std::vector<std::string> cut_;
    std::vector<std::string> fitted_;
    std::vector<std::string> tried_;
    std::vector<std::string> also_;
    int others_ = 0;
};

/// The faults, numbered, a line each.
std::string faultsOf(const Study& study)
{
    std::string faults;
    int number = 0;
    for (const Axle axle : { Axle::Front, Axle::Rear })
        for (const ReceivingItem& item : receivingOf(study, axle))
            if (item.state == Checked::Fault) {
                faults += tr("{}. {} ({} axle): {}", ++number, item.title, tr(wordOf(axle)), item.said);
                if (!item.note.empty() && item.note != item.said)
                    faults += " – " + item.note;
                faults += ".\n";
            }
    return faults;
}

/// " (asked on 2026-03-14, not answered)", of a question that was put before today.
std::string askedBefore(const Setup& setup, const std::string& question, const std::string& today)
{
    for (const VendorQuestion& q : setup.questions)
        if (sameQuestion(q.about, question) && !q.asked.empty() && q.asked != today)
            return tr(" (asked on {}, not answered)", q.asked);
    return {};
}

/// What the vendor said, and when, so that he can put it right.
void answers(Leaf& leaf, const Setup& setup)
{
    bool first = true;
    for (const VendorQuestion& q : setup.questions) {
        if (q.answered.empty())
            continue;
        if (std::exchange(first, false))
            leaf.text(tr("You told us, and we work with it:"));
        leaf.text(tr("{}: {} (asked on {}, answered on {})", q.about, q.answer.empty() ? tr("no value noted") : q.answer,
            q.asked.empty() ? tr("a day not noted") : q.asked, q.answered));
    }
}

/// Where pictures of this setup lie.
std::vector<std::string> picturesOf(const Study& study)
{
    std::vector<std::string> pictures;
    for (const Tick& tick : jobcard::choicesOf(*study.build, study.after.setup->id).ticks)
        if (!tick.photo.empty())
            pictures.push_back(tick.photo);
    for (const Receipt& receipt : study.after.setup->received)
        if (!receipt.photo.empty())
            pictures.push_back(receipt.photo);
    return pictures;
}

/// The photograph itself; where it cannot be read, its name and why.
void addPhoto(Leaf& leaf, const std::string& picture, const std::filesystem::path& folder)
{
    try {
        Block b { Block::Kind::Photo, std::filesystem::path(picture).filename().string() };
        b.photo = files::readPhoto(folder / picture);
        leaf.blocks.push_back(std::move(b));
    } catch (const files::Refusal& refusal) {
        leaf.text(tr("Photograph on file, not in this letter: {}", refusal.what()));
    }
}

} // namespace

std::string whatWasDone(const Study& study)
{
    if (!study.after.setup)
        return tr("Our records show nothing fitted, drilled or altered.");
    return Done(study).sentences();
}

std::string faultLetter(const Study& study)
{
    const auto faults = study.after.setup ? faultsOf(study) : std::string();
    if (faults.empty())
        return {};
    const Setup& setup = *study.after.setup;
    return tr("{}{} for the {}\n\nOn unpacking and measuring the kit we found:\n\n{}\nPlease say how you will put this right.\n\n{}\n",
        setup.vendor.empty() ? "" : tr("To {}\n\n", setup.vendor), setup.name, carOf(study), faults, whatWasDone(study));
}

std::vector<std::string> vendorsOf(const Build& build)
{
    std::vector<std::string> vendors;
    for (std::size_t i = 1; i < build.setups.size(); ++i)
        if (const auto& vendor = build.setups[i].vendor; !vendor.empty() && std::ranges::find(vendors, vendor) == vendors.end())
            vendors.push_back(vendor);
    return vendors;
}

Leaf letterTo(const std::string& vendor, const std::vector<Study>& studies, const std::string& date, const std::filesystem::path& folder)
{
    Leaf leaf { tr("To {}", vendor), studies.empty() ? date : fmt::format("{} · {}", carOf(studies.front()), date), {}, {} };
    for (const Study& study : studies) {
        leaf.heading(study.after.setup->name);
        if (const auto faults = faultsOf(study); !faults.empty()) {
            leaf.text(tr("On unpacking and measuring the kit we found:"));
            leaf.text(faults);
            leaf.text(tr("Please say how you will put this right."));
            leaf.text(tr("What was done with it: {}", whatWasDone(study)));
        }
        const auto questions = questionsFor(study);
        if (!questions.empty()) {
            leaf.text(tr("Please tell us:"));
            int number = 0;
            for (const auto& question : questions)
                leaf.text(fmt::format("{}. {}{}", ++number, question, askedBefore(*study.after.setup, question, date)));
        }
        answers(leaf, *study.after.setup);
        for (const auto& picture : picturesOf(study))
            addPhoto(leaf, picture, folder);
    }
    leaf.text(tr("Thank you."));
    return leaf;
}

} // namespace deepstop::report
