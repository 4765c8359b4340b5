/// The table of fields: the document as a whole, the drawer, the mock-up and what is wanted.

#include "build/table.hpp"

namespace deepstop {

template <class V, Is<ShimStock> T>
void fields(V& v, T& s)
{
    v.element(s.id);
    v.reading("thickness_mm", "shim thickness", style::fine, range::shim, s.thickness);
    v.count("count", "how many", 1000, s.count);
}

template <class V, Is<Pass> T>
void fields(V& v, T& p)
{
    v.element(p.id);
    v.text("date", "read on", p.date);
    v.reading("inner_top_mm", "inner gap, top", style::fine, range::smallPlace, p.innerTop);
    v.reading("outer_top_mm", "outer gap, top", style::fine, range::smallPlace, p.outerTop);
    v.reading("inner_bottom_mm", "inner gap, bottom", style::fine, range::smallPlace, p.innerBottom);
    v.reading("outer_bottom_mm", "outer gap, bottom", style::fine, range::smallPlace, p.outerBottom);
    v.reading("pad_edge_top_mm", "pad edge below the rotor's edge, top", style::fine, range::smallPlace, p.padEdgeTop);
    v.reading("pad_edge_bottom_mm", "pad edge below the rotor's edge, bottom", style::fine, range::smallPlace, p.padEdgeBottom);
    v.reading("shim_top_mm", "shims then on the top bolt", style::fine, range::stack, p.shimTop);
    v.reading("shim_bottom_mm", "shims then on the bottom bolt", style::fine, range::stack, p.shimBottom);
    v.reading("radial_top_mm", "radial shims then on the top stud", style::fine, range::stack, p.radialTop);
    v.reading("radial_bottom_mm", "radial shims then on the bottom stud", style::fine, range::stack, p.radialBottom);
}

template <class V, Is<MockUp> T>
void fields(V& v, T& m)
{
    v.text("setup", "setup", m.setup);
    v.choice("axle", "axle", m.axle, choices::axle);
    v.choice("side", "side", m.side, choices::side);
    v.reading("inner_top_mm", "inner gap, top", style::fine, range::smallPlace, m.innerTop);
    v.reading("outer_top_mm", "outer gap, top", style::fine, range::smallPlace, m.outerTop);
    v.reading("inner_bottom_mm", "inner gap, bottom", style::fine, range::smallPlace, m.innerBottom);
    v.reading("outer_bottom_mm", "outer gap, bottom", style::fine, range::smallPlace, m.outerBottom);
    v.reading("gap_spacing_mm", "distance between upper and lower reading", style::size, range::length, m.gapSpacing);
    v.reading("pad_edge_top_mm", "pad edge below the rotor's edge, top", style::fine, range::smallPlace, m.padEdgeTop);
    v.reading("pad_edge_bottom_mm", "pad edge below the rotor's edge, bottom", style::fine, range::smallPlace, m.padEdgeBottom);
    v.reading("play_mm", "play on the loose bolts", style::fine, range::smallHeight, m.play);
    v.count("nuts", "nuts that hold the rotor", 20, m.nuts);
    v.choice("seated", "rotor flat on a clean hub", m.seated, choices::yesNo);
    v.choice("settled", "play taken up the same way", m.settled, choices::yesNo);
    v.choice("shaft_in", "drive shaft in place", m.shaftIn, choices::yesNo);
    v.list("passes", "earlier reading", 100, m.passes);
}

template <class V, Is<Wants> T>
void fields(V& v, T& w)
{
    v.setting("barrel_gap_mm", "wanted gap to the barrel", style::gap, range::wanted, w, &Wants::barrelGap);
    v.setting("spoke_gap_mm", "wanted gap to the spokes", style::gap, range::wanted, w, &Wants::spokeGap);
    v.setting("bridge_gap_mm", "wanted gap under the bridge", style::gap, range::wanted, w, &Wants::bridgeGap);
    v.setting("face_gap_mm", "wanted gap beside the rotor", style::gap, range::wanted, w, &Wants::faceGap);
    v.setting("centred_mm", "centring aimed at", style::fine, range::wanted, w, &Wants::centred);
    v.setting("usable_mm", "centring still usable", style::fine, range::wanted, w, &Wants::usable);
    v.setting("hat_gap_mm", "wanted gap over the hat", style::gap, range::wanted, w, &Wants::hatGap);
    v.setting("keep_out_gap_mm", "wanted gap to knuckle and ball joint", style::gap, range::wanted, w, &Wants::keepOutGap);
    v.setting("hose_gap_mm", "wanted gap to the hose", style::gap, range::wanted, w, &Wants::hoseGap);
    v.setting("shield_gap_mm", "margin round rotor and caliper at the shield", style::gap, range::wanted, w, &Wants::shieldGap);
    v.setting("hot_rise_k", "rise of a hot rotor", style::rise, range::rise, w, &Wants::hotRise);
    v.setting("coning_mm", "coning of a hot rotor", style::fine, range::smallHeight, w, &Wants::coning);
    v.setting("station_spacing_mm", "stations of a wheel at most apart", style::frame, range::length, w, &Wants::stationSpacing);
    v.setting("stud_engagement", "thread in the nut over stud diameter", style::number, range::engagement, w, &Wants::studEngagement);
    v.setting("pilot_left_mm", "pilot wanted inside the wheel", style::gap, range::smallHeight, w, &Wants::pilotLeft);
    v.setting("spacer_step_mm", "a spacer can be turned in steps of", style::size, range::wanted, w, &Wants::spacerStep);
    v.setting("pad_edge_mm", "pad edge aimed at, below the rotor's", style::fine, range::smallHeight, w, &Wants::padEdge);
    v.setting("shims_per_bolt", "shims on one bolt at most", style::count, range::shimsPerBolt, w, &Wants::shimsPerBolt);
    v.setting("weight_height_mm", "height of unplaced balance weights", style::gap, range::smallHeight, w, &Wants::weightHeight);
    v.setting("antilock_quality", "share of the grip antilock uses", style::number, range::quality, w, &Wants::antilockQuality);
    v.setting("slip_margin", "slip safety factor of bolts that carry the brake", style::number, range::engagement, w, &Wants::slipMargin);
    v.setting("stroke_percent", "share of the master's stroke for a hard stop", style::share, range::share, w, &Wants::strokeShare);
    v.setting("light_effort_n", "lowest comfortable pedal force for 1 g", style::force, range::pedalForce, w, &Wants::lightEffort);
    v.setting("firm_effort_n", "highest comfortable pedal force for 1 g", style::force, range::pedalForce, w, &Wants::firmEffort);
    v.setting("greatest_effort_n", "largest pedal force of a strong driver", style::force, range::pedalForce, w, &Wants::greatestEffort);
    v.setting("booster_run_out_bar", "front pressure where a booster runs out", style::pressure, range::pressure, w, &Wants::boosterRunOut);
    v.setting("roll_back_mm", "roll-back of a caliper's piston", style::fine, range::smallHeight, w, &Wants::rollBack);
    v.setting("pad_squeeze_mm", "give of one pad at 70 bar", style::fine, range::smallHeight, w, &Wants::padSqueeze);
    v.setting("caliper_give_cm3", "give of a caliper or drum at 70 bar", style::fluid, range::fluid, w, &Wants::caliperGive);
    v.setting("rubber_give_cm3", "give of a metre of rubber hose at 70 bar", style::fluid, range::fluid, w, &Wants::rubberGive);
    v.setting("braided_give_cm3", "give of a metre of braided hose at 70 bar", style::fluid, range::fluid, w, &Wants::braidedGive);
    v.setting("shoe_play_mm", "play of a wheel cylinder's piston", style::fine, range::smallHeight, w, &Wants::shoePlay);
    v.setting("ambient_degC", "ambient temperature", style::temperature, range::temperature, w, &Wants::ambient);
    v.setting("altitude_m", "altitude of the road", style::road, range::altitude, w, &Wants::altitude);
    v.setting("fade_percent", "friction left where a pad is called faded", style::share, range::share, w, &Wants::fadeAt);
    v.setting("pitch_time_s", "time in which the load goes forward", style::seconds, range::buildUp, w, &Wants::pitchTime);
    v.setting("grip_fall_percent", "grip lost where a tyre's load doubles", style::share, range::shareOrNone, w, &Wants::gripFall);
    v.setting("wet_grip_percent", "dry grip left in the wet", style::share, range::share, w, &Wants::wetGrip);
    v.setting("day_grip_percent", "grip off from day to day, either way", style::share, range::shareOrNone, w, &Wants::dayGrip);
    v.setting("fade_past", "faded past so many first distances", style::number, range::fadePast, w, &Wants::fadePast);
    v.setting("wind_limit_kmh", "wind along the road, at most", style::speed, range::speed, w, &Wants::windLimit);
}

template <class V, Is<Build> T>
void fields(V& v, T& b)
{
    v.text("currency", "currency", b.currency);
    v.object("car", "", b.car);
    v.object("front_hub", "front", b.frontHub);
    v.object("rear_hub", "rear", b.rearHub);
    v.object("wants", "", b.wants);
    v.list("wheels", "", 200, b.wheels);
    v.list("setups", "", 60, b.setups);
    v.list("duties", "", 60, b.duties);
    v.list("loads", "load", 20, b.loads);
    v.list("drawer", "drawer", 60, b.drawer);
    v.list("mock_ups", "mock-up", 40, b.mockUps);
    v.list("tests", "", 200, b.tests);
    v.list("cards", "job card", 60, b.cards);
    v.list("log", "log", 5000, b.log);
}

DESCRIBED(ShimStock)
DESCRIBED(Pass)
DESCRIBED(MockUp)
DESCRIBED(Wants)
DESCRIBED(Build)

} // namespace deepstop
