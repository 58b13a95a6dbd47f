// stations/blank_parts.h
//
// The parts of Blank's tray, as a maker would name them: what it is, what must stay clear, how it is built, how it
// holds, the signs of the job, and what follows from it all.
#pragma once

#include "stations/form.h"

namespace skarvel {

using BlankForm = Form<Blank>;

/// A board, a panel, a canvas or a field in mouldings.
bool is_four_sided(const Blank& blank);

/// Its kind, sizes and what it is made of.
void what_it_is(BlankForm& form, const std::function<void()>& read_outline);
/// Clear zones and margins.
void keep_clear(BlankForm& form);
void side_margins(BlankForm& form);
void tape_readings(BlankForm& form);
void painted_fields(BlankForm& form);
void frame_and_backing(BlankForm& form);
void hang_or_stand(BlankForm& form);
void guides(BlankForm& form);

/// What the tray says below its fields.
void say_what_follows(Tray& tray, const ColourPlan& plan);

}  // namespace skarvel
