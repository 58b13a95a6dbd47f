// device/sender.h
//
// Sender: one load in plotter language to a cutter behind a socket on this computer or the network, with what it says
// back. A machine is asked for its material first (OH, the limits of what it can reach); a load that reaches further is
// not sent. It answers each path that it has cut with its share of the whole, and at the end how the cut came out.
#pragma once

#include <atomic>
#include <functional>
#include <stop_token>
#include <string>

#include "device/line.h"
#include "text/reason.h"

namespace skarvel {

/// What the sender may be told while it runs, from any thread; and whether the knife has been let down: a load that
/// ends otherwise than well is then perhaps cut, and not cut at all where it has not.
struct SendHold {
    std::atomic<bool> paused = false;
    std::atomic<bool> begun = false;
};

struct CutResult {
    std::string outcome;  ///< "good", "not-through", "into-backing", or what else the machine says
    Length material_across, material_along;
    int seconds = 0;  ///< as the machine counts them
    friend bool operator==(const CutResult&, const CutResult&) = default;
};

struct CutOrder {
    std::string hpgl;
    Length across, along;  ///< how far the load reaches
    std::string film;      ///< the kind of film, which decides the force it wants
    int force = 0;         ///< grams; 0 leaves it as it is set
    int speed_mm_s = 0;
    bool again = false;   ///< a second pass over what lies there, without unloading
    int patience_s = 30;  ///< that a machine may be silent, beside what it needs for a path
};

/// Refused: nobody answers, the material is too short or too narrow, the machine stops, or `stop` was requested (then
/// the knife is lifted first).
Expected<CutResult> send(const CutOrder& order, const Address& to, const std::function<void(double)>& progress,
                         SendHold& holding, const std::stop_token& stop);

}  // namespace skarvel
