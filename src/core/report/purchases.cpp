#include "report/purchases.hpp"

#include "files/csv.hpp"
#include "language/language.hpp"
#include "quantity/format.hpp"

#include <fmt/format.h>

#include <cmath>

namespace deepstop::report {
namespace {

constexpr bool plain = false;

std::string money(double amount, const std::string& currency)
{
    return currency.empty() ? fmt::format("{:.2f}", amount) : fmt::format("{:.2f} {}", amount, currency);
}

/// "at least 812.00 EUR: 2 lines have no price", or the total with its width.
std::string totalOf(const PurchaseList& list, const std::string& currency)
{
    if (list.without > 0)
        return tr("at least {}: {} {} no price", money(list.known, currency), list.without,
            list.without == 1 ? tr("line has") : tr("lines have"));
    const auto width = list.total.worstCase > 0.005 ? fmt::format(" ±{:.2f}", list.total.worstCase) : std::string();
    return money(*list.total.value, currency) + width + (list.total.provisional() ? tr(", partly estimated") : "");
}

std::string pieces(const Purchase& p) { return p.pieces >= 0 ? std::to_string(*p.pieces) : std::string(tr("not said")); }

} // namespace

PurchaseList purchasesOf(const Setup& setup)
{
    PurchaseList list;
    for (const Purchase& each : setup.purchases) {
        PurchaseLine line { &each,
            evaluate([&](Evaluator& s) { return each.pieces >= 0 ? each.pieces * s(each.price, plain) : 0 * s(each.price, plain); }) };
        if (each.pieces < 0)
            line.price.value.reset();
        if (line.price.value)
            list.known += *line.price.value;
        else
            ++list.without;
        list.lines.push_back(std::move(line));
    }
    list.total = evaluate([&](Evaluator& s) {
        double total = 0;
        for (const Purchase& each : setup.purchases)
            total += each.pieces >= 0 ? each.pieces * s(each.price, plain) : 0;
        return total;
    });
    if (list.without > 0 || list.lines.empty())
        list.total.value.reset();
    return list;
}

Leaf purchaseSheet(const Build& build, const std::string& date)
{
    Leaf leaf { tr("What to buy"), build.car.name.empty() ? date : fmt::format("{} · {}", build.car.name, date), {}, {} };
    const std::vector<double> widths { 0.3, 0.18, 0.22, 0.1, 0.2 };
    std::vector<std::pair<std::string, PurchaseList>> lists;
    for (const Setup& setup : build.setups)
        if (auto list = purchasesOf(setup); !list.lines.empty())
            lists.emplace_back(setup.name, std::move(list));
    if (lists.empty()) {
        leaf.text(tr("No setup lists anything to buy."));
        return leaf;
    }
    for (const auto& [name, list] : lists) {
        leaf.heading(name);
        leaf.row({ "part", "number", "from", "pieces", "price" }, widths, true);
        for (const PurchaseLine& line : list.lines)
            leaf.row({ line.bought->what, line.bought->number, line.bought->source, pieces(*line.bought),
                         line.price.value ? money(*line.price.value, build.currency) : tr("not said") },
                widths);
        leaf.text(tr("Total: {}.", totalOf(list, build.currency)));
    }
    if (lists.size() < 2)
        return leaf;
    leaf.heading(tr("Against {}", lists.front().first));
    const PurchaseList& first = lists.front().second;
    for (std::size_t i = 1; i < lists.size(); ++i) {
        const PurchaseList& other = lists[i].second;
        const bool known = first.without == 0 && other.without == 0;
        leaf.text(known ? fmt::format("{}: {}{}.", lists[i].first, *other.total.value >= *first.total.value ? "+" : "−",
                      money(std::abs(*other.total.value - *first.total.value), build.currency))
                        : tr("{}: not known while a line has no price.", lists[i].first));
    }
    return leaf;
}

std::string purchasesCsv(const Build& build)
{
    using files::csvField;
    std::string out = "setup,what,number,source,pieces,price_of_one,price\r\n";
    for (const Setup& setup : build.setups) {
        const auto list = purchasesOf(setup);
        for (const PurchaseLine& line : list.lines)
            out += fmt::format("{},{},{},{},{},{},{}\r\n", csvField(setup.id), csvField(line.bought->what), csvField(line.bought->number),
                csvField(line.bought->source), line.bought->pieces >= 0 ? std::to_string(*line.bought->pieces) : "",
                line.bought->price.value ? fmt::format("{:.2f}", *line.bought->price.value) : "",
                line.price.value ? fmt::format("{:.2f}", *line.price.value) : "");
        if (!list.lines.empty())
            out += fmt::format("{},total,,,,,{}\r\n", csvField(setup.id), list.total.value ? fmt::format("{:.2f}", *list.total.value) : "");
    }
    return out;
}

} // namespace deepstop::report
