#include "verdict/check.hpp"

#include "language/language.hpp"

#include "build/words.hpp"
#include "verdict/verdict.hpp"

namespace deepstop {

std::string idOf(const Check& check, const Where& where)
{
    std::string id;
    if (check.of != CheckOf::Car)
        id = wordOf(where.axle);
    if (check.of == CheckOf::Corner)
        id += where.side == Side::Left ? "-left" : "-right";
    if (check.of != CheckOf::Car)
        id += "/";
    const auto number = std::to_string(where.number);
    if (const auto mark = check.name.find('#'); mark != std::string_view::npos)
        id.append(check.name.substr(0, mark)).append(number).append(check.name.substr(mark + 1));
    else {
        id += check.name;
        if (where.number > 0)
            id.append("-").append(number);
    }
    return where.found ? id + "-found" : id;
}

Verdict verdictOf(const Check& check, const Where& where)
{
    Verdict v;
    v.id = idOf(check, where);
    v.check = &check;
    v.number = where.number;
    v.found = where.found;
    v.axle = where.axle;
    if (check.of == CheckOf::Corner)
        v.side = where.side;
    v.title = tr(check.title);
    return v;
}

} // namespace deepstop
