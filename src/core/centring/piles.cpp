#include "centring/piles.hpp"

namespace deepstop::centring {
namespace {

void put(std::span<const Kind> kinds, std::size_t k, int left, Pile& pile, std::vector<Pile>& out)
{
    if (k == kinds.size()) {
        out.push_back(pile);
        return;
    }
    const auto before = pile.size;
    put(kinds, k + 1, left, pile, out);
    for (int n = 1; n <= std::min(left, kinds[k].count); ++n) {
        pile.kinds[pile.size++] = static_cast<std::uint8_t>(k);
        pile.total += kinds[k].thickness;
        put(kinds, k + 1, left - n, pile, out);
    }
    while (pile.size > before) {
        pile.kinds[--pile.size] = 0;
        pile.total -= kinds[k].thickness;
    }
}

/// How many piles there are at most: multisets of up to `most` out of `kinds`.
double howMany(std::size_t kinds, int most)
{
    double ways = 1;
    for (int i = 1; i <= most; ++i)
        ways = ways * static_cast<double>(kinds + static_cast<std::size_t>(i)) / i;
    return ways;
}

} // namespace

Piles everyPile(std::span<const Kind> kinds, int most)
{
    constexpr double mostPiles = 150'000;
    constexpr std::size_t mostKinds = 255;
    Piles piles;
    piles.complete = kinds.size() <= mostKinds;
    kinds = kinds.first(std::min(kinds.size(), mostKinds));
    int height = std::clamp(most, 0, tallest);
    while (howMany(kinds.size(), height) > mostPiles) {
        --height;
        piles.complete = false;
    }
    Pile empty;
    put(kinds, 0, height, empty, piles.all);
    std::ranges::stable_sort(piles.all, {}, &Pile::total);
    return piles;
}

} // namespace deepstop::centring
