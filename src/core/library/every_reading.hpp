#pragma once
/// A visitor that comes to every reading of a part, those in lists too.

#include "build/visitor.hpp"

namespace deepstop::library {

class EveryReading : public Visitor {
public:
    void readings(const ReadingField& field, std::vector<Reading>& list, std::size_t) override
    {
        for (Reading& r : list)
            reading(field, r);
    }
    void list(const ListField&, List& list) override
    {
        for (std::size_t i = 0; i < list.size(); ++i)
            list.describe(*this, i);
    }
};

} // namespace deepstop::library
