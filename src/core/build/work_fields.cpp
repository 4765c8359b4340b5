/// The table of fields: sessions, job cards and the log.

#include "build/table.hpp"

namespace deepstop {

template <class V, Is<Tick> T>
void fields(V& v, T& t)
{
    v.text("step", "step", t.step);
    v.choice("state", "state", t.state, choices::checked);
    v.text("who", "who", t.who);
    v.text("when", "when", t.when);
    v.text("note", "note", t.note);
    v.text("photo", "picture", t.photo);
    v.reading("took_min", "time it took", style::minutes, range::duration, t.took);
}

template <class V, Is<MeasuredTemperature> T>
void fields(V& v, T& m)
{
    v.element(m.id);
    v.text("duty", "duty", m.duty);
    v.count("stop", "after stop", 20'000, m.stop);
    v.reading("after_s", "seconds after its end", style::seconds, range::duration, m.after);
    v.choice("axle", "axle", m.axle, choices::axle);
    v.choice("at", "measured at", m.at, choices::measuredAt);
    v.reading("temperature_degC", "temperature measured", style::temperature, range::temperature, m.temperature);
    v.choice("highest_only", "a label that keeps the highest", m.highestOnly, choices::yesNo);
}

template <class V, Is<MeasuredStop> T>
void fields(V& v, T& s)
{
    v.element(s.id);
    v.reading("speed_kmh", "speed of a measured stop", style::speed, range::speed, s.speed);
    v.reading("distance_m", "distance of a measured stop", style::road, range::road, s.distance);
    v.choice("way", "way along the road", s.way, choices::way);
    v.reading("ring_degC", "rotor before it", style::temperature, range::temperature, s.ring);
    v.reading("pedal_n", "pedal force", style::force, range::pedalForce, s.pedal);
    v.text("note", "note", s.note);
    v.text("left_out", "why it does not count", s.leftOut);
    v.pairs("course", "seconds and m/s as logged", 2000, range::courseTime, range::courseSpeed, s.course);
}

template <class V, Is<TestSession> T>
void fields(V& v, T& t)
{
    v.element(t.id);
    v.text("setup", "setup", t.setup);
    v.text("date", "date", t.date);
    v.text("place", "place", t.place);
    v.text("log", "log it came from", t.log);
    v.choice("series", "what the stops are for", t.series, choices::series);
    v.text("duty", "duty driven until it fades", t.duty);
    v.choice("surface", "road", t.surface, choices::surface);
    v.choice("measured_from", "distance measured from", t.from, choices::measuredFrom);
    v.reading("slope_percent", "slope on the way out, falling positive", style::grade, range::slopeOfRoad, t.slope);
    v.reading("wind_kmh", "wind from ahead on the way out", style::speed, range::wind, t.wind);
    v.list("stops", "stop", 1000, t.stops);
    v.list("temperatures", "temperature", 1000, t.temperatures);
    v.choice("locked_first", "wheels that locked first", t.lockedFirst, choices::lockedFirst);
    v.choice("fade_felt", "fade felt", t.fadeFelt, choices::fadeFelt);
    v.count("faded_at", "fade felt at braking", 20'000, t.fadedAt);
    v.count("brakings", "brakings driven", 20'000, t.brakings);
    v.reading("tester_front_left_n", "brake tester, front left", style::force, range::testerForce, t.testerFrontLeft);
    v.reading("tester_front_right_n", "brake tester, front right", style::force, range::testerForce, t.testerFrontRight);
    v.reading("tester_rear_left_n", "brake tester, rear left", style::force, range::testerForce, t.testerRearLeft);
    v.reading("tester_rear_right_n", "brake tester, rear right", style::force, range::testerForce, t.testerRearRight);
    v.list("inspected", "inspection", 200, t.inspected);
    v.optional("ran", "as it ran", t.ran);
}

template <class V, Is<Opening> T>
void fields(V& v, T& o)
{
    v.text("step", "step", o.step);
    v.text("reason", "reason", o.reason);
    v.text("who", "who", o.who);
    v.text("when", "when", o.when);
}

template <class V, Is<OwnStep> T>
void fields(V& v, T& o)
{
    v.element(o.id);
    v.text("after", "behind step", o.after);
    v.text("text", "own step", o.text);
}

template <class V, Is<JobCard> T>
void fields(V& v, T& c)
{
    v.text("setup", "setup", c.setup);
    v.choice("bleed_order", "order of bleeding", c.bleedOrder, choices::bleedOrder);
    v.choice("bleed_method", "way of bleeding", c.bleedMethod, choices::bleedMethod);
    v.choice("bleeder_first", "bleeder opened first", c.bleederFirst, choices::bleederFirst);
    v.choice("bedding", "bedding in", c.bedding, choices::bedding);
    v.list("ticks", "step", 2000, c.ticks);
    v.list("openings", "step opened early", 200, c.openings);
    v.choice("work_order", "order of the work", c.order, choices::workOrder);
    v.choice("reservoir_ran_dry", "reservoir ran dry", c.reservoirRanDry, choices::yesNo);
    v.list("off", "taken off", 40, c.off);
    v.choice("inspection", "inspection of what stays taken in", c.inspection, choices::yesNo);
    v.list("own_steps", "own step", 200, c.ownSteps);
}

template <class V, Is<WearReading> T>
void fields(V& v, T& w)
{
    v.choice("axle", "axle", w.axle, choices::axle);
    v.choice("side", "side", w.side, choices::side);
    v.reading("lining_mm", "lining left", style::fine, range::smallHeight, w.lining);
    v.reading("ring_mm", "rotor left", style::fine, range::thickness, w.ring);
}

template <class V, Is<LogEntry> T>
void fields(V& v, T& e)
{
    v.element(e.id);
    v.text("date", "date", e.date);
    v.reading("odometer_km", "odometer", style::odometer, range::odometer, e.odometer);
    v.choice("event", "what", e.event, choices::logEvent);
    v.text("setup", "setup", e.setup);
    v.text("duty", "duty", e.duty);
    v.reading("track_h", "time on the track", style::hours, range::duration, e.hours);
    v.reading("hottest_degC", "hottest rotor", style::temperature, range::temperature, e.hottest);
    v.reading("cost", "cost", style::money, range::money, e.cost);
    v.list("wear", "wear", 8, e.wear);
    v.text("note", "note", e.note);
}

DESCRIBED(Tick)
DESCRIBED(MeasuredTemperature)
DESCRIBED(MeasuredStop)
DESCRIBED(TestSession)
DESCRIBED(Opening)
DESCRIBED(JobCard)
DESCRIBED(WearReading)
DESCRIBED(LogEntry)

} // namespace deepstop
