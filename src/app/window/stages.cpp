#include "window/stages.hpp"

#include "language/language.hpp"
#include "stages/balance/balance_page.hpp"
#include "stages/bench/bench_page.hpp"
#include "stages/centring/centring_page.hpp"
#include "stages/design/design_page.hpp"
#include "stages/search/search_page.hpp"
#include "stages/heat/heat_page.hpp"
#include "stages/jobcard/card_page.hpp"
#include "stages/logbook/logbook_page.hpp"
#include "stages/single_pages.hpp"
#include "stages/stop/stop_page.hpp"
#include "stages/wheel/wheel_page.hpp"

#include <algorithm>

namespace deepstop::app {
namespace {

template <class Page>
StagePage* make(Document& document, LibraryStore& library, QWidget* parent)
{
    if constexpr (std::is_constructible_v<Page, Document&, LibraryStore&, QWidget*>)
        return new Page(document, library, parent);
    else
        return new Page(document, parent);
}

} // namespace

const std::vector<Stage>& stages()
{
    static const std::vector<Stage> all {
        { CarPage::id, marked("Car"), { "car" }, false, make<CarPage> },
        { BenchPage::id, marked("Parts bench"), { "parts", "weights" }, true, make<BenchPage> },
        { WheelPage::id, marked("Clearance"), { "clearance" }, true, make<WheelPage> },
        { CentringPage::id, marked("Centring"), { "centring", "joints" }, false, make<CentringPage> },
        { BalancePage::id, marked("Balance"), { "balance" }, false, make<BalancePage> },
        { HeatPage::id, marked("Heat"), { "heat" }, true, make<HeatPage> },
        { StopPage::id, marked("Stop"), { "stopping", "proving" }, false, make<StopPage> },
        { CardPage::id, marked("Job card"), {}, false, make<CardPage>, stateOfCard,
            marked("Space ticks a step, X calls it a fault, arrows go on. A padlock marks work that cannot be undone: it opens when the "
                   "checks it "
                   "rests on are proven on both sides, or for a reason that stays in the record. What is read at a step is typed under the "
                   "list "
                   "and "
                   "lands in the build.\n\nBrakes are life-critical. This program advises; it approves nothing: the makers' data and local "
                   "law "
                   "come "
                   "first. Have adapters, machined, drilled and welded parts judged by a qualified engineer or licensed mechanic.") },
        { LogbookPage::id, marked("Logbook"), {}, false, make<LogbookPage>, stateOfLog,
            marked("What was done, found and read, day by day; a click on the line takes that day in hand. Wear is worked out from "
                   "readings with "
                   "their "
                   "odometer, towards the minimum that is cast on the part: two readings say when, and their widths how sure.\n\nLook at "
                   "linings, "
                   "rotors, hoses, "
                   "bolts and fluid by the maker's intervals and before every day on a track, whatever this page says.") },
        { DesignPage::id, marked("Design"), {}, false, make<DesignPage>, stateOfDesign,
            marked("The green part of the map clears at worst, in every wheel that is ticked, if the parts are made as drawn; the amber "
                   "part is tight, "
                   "the violet one rests on estimates. The dot is the kit: drag it, move it by the arrow keys, or type. Lines carry the "
                   "name of what "
                   "decides there.\n\nPut into the build, the kit is a setup of its own whose dimensions are known as design: its verdicts "
                   "stay "
                   "unproven until the parts are read.\n\nThe program advises and never approves: a qualified engineer has to judge hat, "
                   "ring and "
                   "bracket before they are made, and local law whether they may be driven.") },
        { SearchPage::id, marked("Search"), {}, false, make<SearchPage>, stateOfSearch,
            marked(
                "Every part of the library is tried with every other, under the checks of all pages, with a bracket made for it. A kit "
                "stays in the list when no other is as good in weight, heat, stop, clearance, pedal and price together. What is not known "
                "is never counted as good.\n\nParts are judged as their sheets have them. Put into the build, they have to be read before "
                "anything is proven.\n\nThe program advises and never approves: a qualified engineer has to judge brackets before they are "
                "made, and local law whether the kit may be driven.") },
    };
    return all;
}

const Stage* findStage(StageId id)
{
    const auto found = std::ranges::find(stages(), id, &Stage::id);
    return found == stages().end() ? nullptr : &*found;
}

const Stage& stageOf(std::string_view chapter)
{
    const auto found = std::ranges::find_if(stages(), [&](const Stage& stage) { return stage.speaks(chapter); });
    return found == stages().end() ? stages().front() : *found;
}

} // namespace deepstop::app
