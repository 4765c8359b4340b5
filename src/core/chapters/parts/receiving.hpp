#pragma once
/// Unpacking: the check list made from the kit.

#include "build/edit.hpp"
#include "verdict/findings.hpp"

namespace deepstop {

/// One line of the check list.
struct ReceivingItem {
    std::string id; ///< "front/left/rotor-hand"
    Axle axle = Axle::Front;
    std::string group; ///< "Left front"
    std::string title; ///< "Rotor, left"
    std::string ask; ///< what to look at
    bool asksHand = false; ///< the answer is which hand the part is
    WhichHand hand = WhichHand::Unknown;
    Checked state = Checked::Open;
    std::string note;
    std::string photo; ///< where a picture of it lies
    std::string said; ///< what is wrong, or what the check says
    std::string verdict; ///< id of the check that answers this line; empty: the person does
    bool overruled = false; ///< a check answers it, but the person who has the part in hand calls it a fault
};

/// The check list of one axle that the setup after equips; empty where it leaves the axle alone.
/// A hand that was said decides its line: the same hand on both sides is a fault on the side it does not belong to.
[[nodiscard]] std::vector<ReceivingItem> receivingOf(const Study& study, Axle axle);

/// Lets a line of a setup's list say this.
[[nodiscard]] Edit received(const std::string& setup, const std::string& item, Checked state, WhichHand hand, const std::string& note);

/// Lets a line of a setup's list have a picture, or none where `photo` is empty.
[[nodiscard]] Edit photographed(const std::string& setup, const std::string& item, const std::string& photo);

} // namespace deepstop
