#include "language/language.hpp"
#include "quantity/instrument_names.hpp"
#include "report/sheets.hpp"

#include "chapters/proving/checks.hpp"
#include "report/plots.hpp"
#include "study/chapters.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <charconv>
#include <map>
#include <utility>

namespace deepstop::report {
namespace {

std::size_t indexOf(const std::string& key)
{
    std::size_t index = 0;
    std::from_chars(key.data(), key.data() + key.size(), index);
    return index;
}

/// The build sheet, section by section.
class BuildSheet {
public:
    BuildSheet(const Study& study, const std::string& date) : study_(study), leaf_ { marked("Build sheet"), titleLine(study, date), {}, {} }
    {
    }

    Leaf written()
    {
        leaf_.text(study_.summary);
        beforeAndAfter();
        sections();
        plots();
        verdicts();
        readings();
        signatures();
        return std::move(leaf_);
    }

private:
    void beforeAndAfter()
    {
        leaf_.heading(tr("Before and after"));
        const std::vector<double> widths { 0.3, 0.2, 0.2, 0.3 };
        leaf_.row({ "", study_.before.setup->name, study_.after.setup->name, "" }, widths, true);
        const auto value = [&](const Figure& f, const Style& shown) {
            // How far off a temperature may be is no temperature.
            const Style& width = shown.dimension == Dimension::Temperature ? style::rise : shown;
            return f.value ? fmt::format("{} ±{}", print(*f.value, shown, study_.system), figure(f.rootSumSquare, width, study_.system))
                           : std::string(tr("not known"));
        };
        for (const LedgerLine& line : study_.ledger)
            leaf_.row({ line.title, value(line.before, line.style), value(line.after, line.style),
                          line.word == tr(nameOf(line.level)) ? line.word : fmt::format("{}: {}", tr(nameOf(line.level)), line.word) },
                widths);
    }

    void picture(paper::Drawing drawing, double scale, bool toScale, const std::string& heading)
    {
        if (drawing.strokes.empty())
            return;
        leaf_.heading(heading);
        Block b { Block::Kind::Picture };
        b.drawing = std::move(drawing);
        b.scale = scale;
        b.toScale = toScale;
        leaf_.blocks.push_back(std::move(b));
    }

    void sections()
    {
        for (const Axle axle : { Axle::Front, Axle::Rear })
            if ((axle == Axle::Front ? study_.after.setup->front : study_.after.setup->rear).has_value()) {
                auto drawing = sectionOf(study_, axle);
                const std::string heading = drawing.title + (study_.before.setup != study_.after.setup ? tr(", before dashed") : "");
                picture(std::move(drawing), 2, true, heading);
            }
    }

    void plots()
    {
        for (const Plot& plot : { balancePlot(study_), heatPlot(study_, Axle::Front), stopPlot(study_) })
            picture(drawn(plot), 1, false, plot.title);
    }

    /// All of them, stage by stage; a good one says why, too. Measured stops that can be believed stand in the comparison.
    void verdicts()
    {
        const std::vector<double> widths { 0.1, 0.27, 0.63 };
        for (const Chapter& chapter : chapters()) {
            bool headed = false;
            for (const Verdict& v : study_.verdicts) {
                if (v.chapter != chapter.id || (isFine(v.level) && v.check == &checks::measuredStop))
                    continue;
                if (!std::exchange(headed, true))
                    leaf_.heading(tr("Checks: {}", tr(chapter.title)));
                leaf_.row({ std::string(tr(nameOf(v.level))), titled(v), v.reason }, widths, false, true);
            }
        }
    }
    static std::string titled(const Verdict& v)
    {
        return v.check && v.check->of != CheckOf::Car ? fmt::format("{}: {}", v.axle == Axle::Front ? tr("Front") : tr("Rear"), v.title)
                                                      : v.title;
    }

    /// Every reading that a check rests on, with its width and where it came from, part by part. Long lists (stations, legs, stops) stay in
    /// the build.
    void readings()
    {
        std::map<std::string, std::vector<std::string>> cells;
        std::vector<std::string> order;
        for (const auto& entry : study_.directory->entries())
            if (entry.reading->value && restedOn().contains(ReadingId(*entry.reading)) && isOfAPart(entry.address.pointer)) {
                const std::string part = partOf(entry.address.pointer);
                if (!cells.contains(part))
                    order.push_back(part);
                auto& of = cells[part];
                of.push_back(entry.address.label);
                of.push_back(said(entry));
            }
        const std::vector<double> widths { 0.29, 0.21, 0.29, 0.21 };
        for (const std::string& part : order) {
            leaf_.heading(tr("Readings: {}", part));
            auto& of = cells[part];
            if (of.size() % widths.size())
                of.resize(of.size() + 2);
            for (std::size_t i = 0; i < of.size(); i += widths.size())
                leaf_.row({ of[i], of[i + 1], of[i + 2], of[i + 3] }, widths, false, true);
        }
    }
    static bool isOfAPart(const std::string& pointer)
    {
        for (const char* list : { "/wants/", "/tests/", "/duties/", "/loads/", "/log/", "/cards/" })
            if (pointer.starts_with(list))
                return false;
        for (const char* list : { "/barrel/", "/spokes/", "/friction_over_temperature/" })
            if (pointer.find(list) != std::string::npos)
                return false;
        return true;
    }
    const std::map<ReadingId, bool>& restedOn()
    {
        if (rested_.empty())
            for (const Verdict& v : study_.verdicts)
                if (v.check != &checks::measuredStop)
                    for (const ReadingId reading : v.figure.restsOn)
                        rested_[reading] = true;
        return rested_;
    }
    /// "Kit, front: rotor" of "/setups/1/front/rotor/bore_mm".
    [[nodiscard]] std::string partOf(const std::string& pointer) const
    {
        std::vector<std::string> keys;
        for (std::size_t at = 1; at < pointer.size();) {
            const std::size_t end = std::min(pointer.find('/', at), pointer.size());
            keys.push_back(pointer.substr(at, end - at));
            at = end + 1;
        }
        const auto plain = [](std::string key) {
            std::ranges::replace(key, '_', ' ');
            return key;
        };
        if (keys.size() > 3 && keys[0] == "setups") {
            const std::string& setup = study_.build->setups[indexOf(keys[1])].name;
            const bool ofCorner = keys[2] == "front" || keys[2] == "rear";
            return ofCorner && keys.size() > 4 ? fmt::format("{}, {}: {}", setup, keys[2], plain(keys[3]))
                                               : fmt::format("{}, {}", setup, plain(keys[2]));
        }
        if (keys.size() > 2 && keys[0] == "wheels")
            return tr("wheel {}", study_.build->wheels[indexOf(keys[1])].name);
        return plain(keys.front());
    }
    [[nodiscard]] std::string said(const Directory::Entry& entry) const
    {
        const Reading& r = *entry.reading;
        const bool length = entry.address.style.dimension == Dimension::Length;
        const Style& width = entry.address.style.dimension == Dimension::Temperature ? style::rise : entry.address.style;
        return fmt::format("{} ±{}, {}", print(*r.value, entry.address.style, study_.system),
            figure(uncertainty(r, length), width, study_.system),
            r.instrument.empty() ? std::string(tr(nameOf(r.known))) : instrumentInWords(r.instrument));
    }

    void signatures()
    {
        leaf_.heading(tr("Signed"));
        leaf_.row(
            { tr("fitted by ______________________"), tr("checked by ______________________"), "date ____________" }, { 0.4, 0.4, 0.2 });
        leaf_.caution(
            tr("Brakes are life-critical. Have adapters, machined and welded parts judged by a qualified engineer or licensed mechanic; "
               "follow local law on inspection, registration and type approval."));
    }

    const Study& study_;
    Leaf leaf_;
    std::map<ReadingId, bool> rested_;
};

} // namespace

Leaf buildSheet(const Study& study, const std::string& date) { return BuildSheet(study, date).written(); }

} // namespace deepstop::report
