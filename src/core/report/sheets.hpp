#pragma once
/// What goes on paper of a study: job card, torque sheet, build sheet; and every figure as a table.

#include "jobcard/jobcard.hpp"
#include "report/leaf.hpp"

namespace deepstop::report {

/// Phases and steps to be ticked, what each rests on, cautions at their steps, a torque sheet at the end.
/// @param date ISO, for the title
[[nodiscard]] Leaf jobCard(const Study& study, const jobcard::Card& card, const std::string& date);
/// "Merle · Kit against As found · 2026-06-01"
[[nodiscard]] std::string titleLine(const Study& study, const std::string& date);
/// The torque sheet alone.
[[nodiscard]] Leaf torqueSheet(const Study& study, const jobcard::Card& card, const std::string& date);
/// The car, before and after, the section hatched and dimensioned half as large as it is, balance, heat and stops as plots, verdicts stage
/// by stage, readings part by part, signatures.
[[nodiscard]] Leaf buildSheet(const Study& study, const std::string& date);
/// The paper a kit comes without: what is in the box, which way round, bolts and torques, shims to start with, lines to cut at their real
/// size, tools, what to check. Nothing that was read on this car; how far the kit was proven on it stands first.
[[nodiscard]] Leaf fittingSheet(const Study& study, const std::string& date);
/// One axle cut through its wheel: rotor, caliper, barrel and spokes, hatched and dimensioned; the setup before dashed. z outboard to the
/// right, y the distance from the axis; empty where nothing can be drawn. Stand-ins are drawn dashed as well and named.
[[nodiscard]] paper::Drawing sectionOf(const Study& study, Axle axle);
/// CSV, a line each figure of verdicts and ledger: id, title, level, value, unit, plus-or-minus, reason. In the metric unit named, a point
/// as decimal sign.
[[nodiscard]] std::string figuresCsv(const Study& study);
/// JSON of a card: a list of steps.
[[nodiscard]] std::string cardJson(const jobcard::Card& card);

} // namespace deepstop::report
