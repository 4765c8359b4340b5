#pragma once
/// Inside build/: large parts of a build are made, copied, compared and taken apart by code that is compiled once, in `parts.cpp`, and not
/// anew in every file that has a build in hand.

#define DEEPSTOP_COMPILED_ONCE(Part)                                                                                                       \
    Part();                                                                                                                                \
    Part(const Part&);                                                                                                                     \
    Part(Part&&) noexcept;                                                                                                                 \
    Part& operator=(const Part&);                                                                                                          \
    Part& operator=(Part&&) noexcept;                                                                                                      \
    ~Part();                                                                                                                               \
    bool operator==(const Part&) const;

#define DEEPSTOP_COMPILED_HERE(Part)                                                                                                       \
    Part::Part() = default;                                                                                                                \
    Part::Part(const Part&) = default;                                                                                                     \
    Part::Part(Part&&) noexcept = default;                                                                                                 \
    Part& Part::operator=(const Part&) = default;                                                                                          \
    Part& Part::operator=(Part&&) noexcept = default;                                                                                      \
    Part::~Part() = default;                                                                                                               \
    bool Part::operator==(const Part&) const = default;
