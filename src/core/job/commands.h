// job/commands.h
//
// Commands on a job that read its plan: ticking steps, keeping what is cut, signing the proof, finishing. Each returns
// the new job and leaves the old one alone, so that undo is the old value.
#pragma once

#include "job/plan.h"

namespace skarvel {

/// Ticks a step at a time. A load ticked as cut is kept as it was cut; the proof keeps the words that were signed.
/// An unknown step changes nothing. `began`: since when the step lay on the bench; what it took from then, or from the
/// tick or the end of the wait before it, is kept where that can be the work itself and no break in it.
Job tick(const Job& job, const Plan& plan, const StepId& step, Moment at, std::optional<Moment> began = {});
Job untick(const Job& job, const StepId& step);
/// So many minutes at hand it took, as its maker says; none: not known.
Job took(const Job& job, const StepId& step, int minutes);
/// Who said yes to the words that were signed.
Job said_yes(const Job& job, const std::string& who);
/// The step is done in two ways on one face; in none where both are empty. One that is not planned changes nothing.
Job try_two_ways(const Job& job, const Plan& plan, const SplitTrial& trial);
/// Which half came out better.
Job judge_trial(const Job& job, const StepId& step, Better better);
/// Where on its face a mishap is: with the letter that lies there, or next to it.
Job place_mishap(const Job& job, const Plan& plan, int number, Point place);
/// "Not dry yet": what follows the step waits until `until`.
Job hold(const Job& job, const StepId& step, Moment until);
/// "Dry already", by touch: what follows the step need not wait longer.
Job dry_already(const Job& job, const StepId& step, Moment now);

/// Something went wrong at a step: its mending becomes a step of its own. What needs the words read again takes the
/// signature back. A kind or a step that is not known changes nothing.
Job happened(const Job& job, const Plan& plan, const StepId& at, const std::string& kind, Moment when,
             const Trade& trade, const std::string& note = {});
/// One coat more of what a step puts on, of a face's layer or of a colour. Nothing where it puts on no coat.
Job another_coat(const Job& job, const Step& step);
/// Left out, with a reason: what waited for it goes on. The proof cannot be left out, and a load that is, is not cut.
Job skip(const Job& job, const Plan& plan, const StepId& step, const std::string& reason, Moment at);

/// A machine broke off at a load: it may be cut in part. A tick, or taking one back, settles it.
Job perhaps_cut(const Job& job, const StepId& step);
/// The machine that cut what is in hand is set to a little more force after a cut that was not through, and to less
/// after one into the backing; unchanged where its force is not known, and after anything else.
Shop force_after(const Shop& shop, const Plan& plan, const StepId& at, const std::string& kind);

/// What a step waits for and is not done: what is broken when it is done now, out of order.
std::vector<StepId> not_done_before(const Plan& plan, const StepId& step);
/// No more work today: the hours of this day end now.
Shop stop_for_today(const Shop& shop, Moment now);

/// A load that no longer agrees with the design is used as it is, or its sections are cut again from the design.
Job keep_cut(const Job& job, std::size_t cut_load);
Job cut_again(const Job& job, std::size_t cut_load);
/// One section of a load is spoilt: it alone is cut again, what else was cut with it stays. The last one of a load
/// takes the load with it.
Job cut_section_again(const Job& job, std::size_t cut_load, std::size_t section);
/// One letter of a decal is spoilt, by its place among the pieces of its section: it alone is cut again. A section that
/// has no other, a mask, and a section that is laid again are cut again whole: film that was cut open stays open.
Job cut_letter_again(const Job& job, std::size_t cut_load, std::size_t section, std::size_t piece);

/// What a cut load took of its film, and what it left, in the shop's drawer; once for each load. Nothing is taken where
/// no roll there holds it.
struct Booked {
    Job job;
    Shop shop;
};
Booked book_film(const Job& job, const Shop& shop, std::size_t cut_load);
/// The same for a load that was spoilt before it was booked, by its place among those.
Booked book_spoilt(const Job& job, const Shop& shop, std::size_t spoilt_load);
/// Film that was cut and is of no use: whole loads, and as much of the others as the spoilt section took of their
/// length.
Length spoilt_film(const BenchRecord& bench);

/// Another sign like one that is there, with other words, after it; on the post as well where that one is.
Job copy_sign(const Job& job, std::size_t sign, const std::string& words);
/// The last sign of a job stays.
Job remove_sign(const Job& job, std::size_t sign);
/// A second face, lettered like the first to begin with.
Job letter_back(const Job& job, std::size_t sign);
Job bare_back(const Job& job, std::size_t sign);
/// All signs on a post, in their order; those that are there already keep their gaps.
Job set_on_post(const Job& job);
Job off_post(const Job& job);
/// With a deadline, in a week at noon where there was none, or with none.
void want(Job& job, bool wanted, Moment now);
/// Not before tomorrow, or as soon as may be.
void begin_later(Job& job, bool later, Moment now);
/// Begins then if it can; nothing: whenever it suits best.
void pin(Job& job, const StepId& step, std::optional<Moment> at);
/// An empty name: its words name it.
Job name_sign(const Job& job, std::size_t sign, const std::string& name);

Job finish(const Job& job, Outcome outcome, const std::string& note, Moment at);

}  // namespace skarvel
