#pragma once
/// One kit after another put on the car and judged by the chapters, as far as each of them needs.

#include "design/limits.hpp"
#include "search/search.hpp"

namespace deepstop::search {

/// What the checks of one step say of a kit.
struct Outcome {
    std::string failed; ///< id of the first check that fails; empty: none does
    double shortBy = 0; ///< what that one wants more; NaN where it has no figure
    Style style = style::gap; ///< of that
    std::optional<Gain> gain {}; ///< whose limit it is that fails
    std::vector<Doubt> doubts; ///< neither good nor failed
    double clearance = 0; ///< of `wheel`: the smallest gap to the wheel at worst; NaN where one of them is not known
    explicit operator bool() const { return failed.empty(); }
};

/// Whether it is of what drives and stops the car: asked of rotors, calipers, pads, tyres and master cylinder together.
[[nodiscard]] bool isOfDriving(const Check& check);
/// Whether a verdict's id is of that check on that axle, whatever its number.
[[nodiscard]] bool isOf(const std::string& id, const Check& check, Axle axle);

/// A car on which kits are tried. One thread's own.
class Trial {
public:
    /// @param axle that kits are put on
    Trial(const Query& query, Axle axle);
    Trial(const Trial&) = delete;
    Trial& operator=(const Trial&) = delete;

    /// Puts a kit on; for `every` any part of that kind.
    void put(const Choice& choice);
    /// Puts a kit on the other axle too, as it stands in a trial of that axle: from then on both are judged by what drives the car.
    void putOther(Trial& other);

    // The steps, in the order in which they are asked. What each looks at stands beside it.
    [[nodiscard]] Outcome hub(); ///< rotor: on the hub
    [[nodiscard]] Outcome parking(); ///< caliper
    [[nodiscard]] Outcome pads(); ///< caliper, pad
    [[nodiscard]] Outcome edge(); ///< rotor, pad: on the friction ring
    [[nodiscard]] Outcome room(); ///< rotor, caliper; of one that slides the pad, too: about the rotor, and whether a bracket can be made
    [[nodiscard]] Outcome travel(); ///< rotor, caliper, pad: pistons, slides, pads on the ring
    [[nodiscard]] Outcome seat(); ///< rotor, wheel
    [[nodiscard]] Outcome wheel(); ///< rotor, caliper, wheel; of one that slides the pad, too
    /// How much later the rear locks, of all loads the least, at nominal readings; NaN where it is not known. Of what `locks` looks at.
    [[nodiscard]] double locksApart() const;
    [[nodiscard]] Outcome locks(); ///< all but the master cylinder, of the wheel its tyre: which axle locks first
    [[nodiscard]] Outcome pedal(); ///< all, of the wheel its tyre
    [[nodiscard]] Outcome heat(); ///< all, of the wheel its tyre
    /// Pedal force, heat and the stop after it. @pre `pedal` and `heat` were asked of it
    void addDriven(Gains& gains);
    /// Weight: of rotor, caliper and pad.
    void addWeight(Gains& gains);
    void addPrice(Gains& gains) const;
    /// What has to be paid for its part of that kind; NaN where it is not known.
    [[nodiscard]] double priceOf(Kind kind) const;

    [[nodiscard]] bool slides() const; ///< its caliper does
    /// The build with the kit as the setup `setupId`, in a wheel `triedWheel`.
    [[nodiscard]] Build kitInBuild()
    {
        weighBracket(*corner_, Known::Vendor);
        return *build_;
    }
    [[nodiscard]] Axle axle() const { return axle_; }
    /// The corner as it is to be ordered: what its bracket and shims make known as *design*.
    [[nodiscard]] Corner kitToOrder();
    [[nodiscard]] const std::optional<Hydraulics>& hydraulics() const { return setup_->hydraulics; }
    /// What can and cannot be made of a bracket for it.
    struct OfBracket {
        design::Limit limit;
        Figure gap;
        Level level;
    };
    [[nodiscard]] std::vector<OfBracket> bracket();
    static constexpr const char* setupId = "search";

private:
    [[nodiscard]] Study fresh() const;
    [[nodiscard]] Outcome said(const Study& study, std::span<const Check* const> checks) const;
    [[nodiscard]] Outcome kept(std::span<const Check* const> checks);
    [[nodiscard]] Study drivenStudy() const;
    [[nodiscard]] const Study& partsSaid();
    void placeParts();
    [[nodiscard]] Corner corner(Known known) const;
    [[nodiscard]] Level levelOf(const Check& check, const Figure& gap, double wanted) const;
    void weighBracket(Corner& corner, Known known) const;

    const Query& query_;
    Axle axle_;
    bool bothAxles_ = false; ///< a kit is on the other one, too
    std::shared_ptr<Build> build_;
    SetupParts before_;
    Corner base_; ///< without rotor, caliper and pads
    Corner* corner_;
    Setup* setup_;
    Hydraulics hydraulics_; ///< as they are
    Choice on_;
    design::Basis basis_;
    std::optional<design::Maker> maker_;
    std::optional<Study> parts_; ///< what the parts' chapter said of the kit that is on
    std::optional<Study> whole_; ///< pedal, then heat
    double smallestGap_ = 0; ///< to the wheel, of the last `kept`
    std::vector<Wheel> also_; ///< wheels that must clear too
};

} // namespace deepstop::search
