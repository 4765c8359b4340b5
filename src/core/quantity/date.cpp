#include "quantity/date.hpp"

#include <fmt/format.h>

#include <charconv>
#include <chrono>

namespace deepstop {
namespace {

std::optional<int> numberAt(std::string_view text, std::size_t at, std::size_t size)
{
    int value = 0;
    if (at + size > text.size())
        return {};
    const auto read = std::from_chars(text.data() + at, text.data() + at + size, value);
    return read.ec == std::errc {} && read.ptr == text.data() + at + size ? std::optional(value) : std::nullopt;
}

} // namespace

std::optional<int> dayNumber(int year, int month, int day)
{
    const std::chrono::year_month_day ymd { std::chrono::year { year }, std::chrono::month { static_cast<unsigned>(month) },
        std::chrono::day { static_cast<unsigned>(day) } };
    return ymd.ok() ? std::optional<int>(std::chrono::sys_days { ymd }.time_since_epoch().count()) : std::nullopt;
}

std::optional<int> dayOf(std::string_view date)
{
    const auto year = numberAt(date, 0, 4);
    const auto month = numberAt(date, 5, 2);
    const auto day = numberAt(date, 8, 2);
    if (!year || !month || !day || date[4] != '-' || date[7] != '-')
        return {};
    return dayNumber(*year, *month, *day);
}

std::string dateOf(int day)
{
    const std::chrono::year_month_day ymd { std::chrono::sys_days { std::chrono::days { day } } };
    return fmt::format(
        "{:04}-{:02}-{:02}", static_cast<int>(ymd.year()), static_cast<unsigned>(ymd.month()), static_cast<unsigned>(ymd.day()));
}

} // namespace deepstop
