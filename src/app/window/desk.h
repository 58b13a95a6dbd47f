// window/desk.h
//
// Desk: one job open in a window, put together of its undo line (job/undo_line.h), the plan service, what is at hand
// (selection.h) and the shop store; its file, its copy against crashes, and the logbook. Widgets read the plan from
// here and turn gestures into `apply`; nothing is computed in a widget.
#pragma once

#include <QLockFile>
#include <QObject>
#include <QTimer>
#include <filesystem>
#include <functional>
#include <memory>
#include <optional>
#include <vector>

#include "files/save.h"
#include "job/alternatives.h"
#include "job/commands.h"
#include "job/face_commands.h"
#include "job/summary.h"
#include "job/undo_line.h"
#include "lettering/yielding.h"
#include "logbook/logbook.h"
#include "proof/proof.h"
#include "window/errand.h"
#include "window/in_order.h"
#include "window/installed.h"
#include "window/plan_service.h"
#include "window/selection.h"
#include "window/shop_store.h"

namespace skarvel {

struct DeskFiles {
    std::filesystem::path data;  ///< shop, logbook, recent jobs, copies against crashes
};

class Desk : public QObject {
    Q_OBJECT

  public:
    Desk(std::shared_ptr<const Library> library, DeskFiles files, std::optional<Moment> as_if_now);
    ~Desk() override;

    [[nodiscard]] const Job& job() const { return line_.job(); }
    [[nodiscard]] const Shop& shop() const { return shop_->shop(); }
    [[nodiscard]] const Library& library() const { return *library_; }
    /// For work beside the window, which may outlast a change of typefaces.
    [[nodiscard]] std::shared_ptr<const Library> shared_library() const { return library_; }
    /// The last plan that was ready; `current` tells whether it is the plan of the job as it is now.
    [[nodiscard]] const Plan& plan() const { return plans_.plan(); }
    [[nodiscard]] bool current() const { return plans_.current(); }
    /// Of a batch that takes its time: how many faces are planned, of how many. A newer step stops it.
    [[nodiscard]] std::pair<std::size_t, std::size_t> planning() const { return plans_.progress(); }
    /// The sign and the face at hand: what trays and drawing show and change.
    void select(std::size_t sign, std::size_t face = 0);
    [[nodiscard]] std::size_t sign_at() const { return std::min(at_hand_.sign, job().signs.size() - 1); }
    [[nodiscard]] std::size_t face_at() const { return std::min(at_hand_.face, sign().faces.size() - 1); }
    [[nodiscard]] const Sign& sign() const { return job().signs[sign_at()]; }
    [[nodiscard]] const Face& face() const { return sign().faces[face_at()]; }
    /// nullptr while the face at hand has not been planned; otherwise the plan of its colour at hand.
    [[nodiscard]] const ColourPlan* face_plan() const { return plan().of(face().id, colour().id); }
    /// Which of the face's colours Sections and Method show.
    void select_colour(std::size_t colour);
    [[nodiscard]] const Colour& colour() const { return face().colours[colour_at()]; }
    [[nodiscard]] std::size_t colour_at() const { return std::min(at_hand_.colour, face().colours.size() - 1); }
    /// The text or the art that Lettering shows and changes.
    void select_text(std::size_t text);
    void select_art(std::size_t art);
    [[nodiscard]] std::size_t text_at() const { return std::min(at_hand_.text, face().lettering.texts.size() - 1); }
    [[nodiscard]] std::optional<std::size_t> art_at() const {
        return at_hand_.art && *at_hand_.art < face().art.size() ? at_hand_.art : std::nullopt;
    }
    /// The thing at hand by its id.
    [[nodiscard]] ThingId thing_at() const {
        return art_at() ? face().art[*art_at()].id : face().lettering.texts[text_at()].id;
    }
    /// The layers of the face at hand, each colour in them, and the one that Method shows and changes.
    [[nodiscard]] std::vector<Layer> layers() const {
        return in_order(face().layers, colours_of(face()), false, library().trade);
    }
    void select_layer(const LayerId& layer);
    [[nodiscard]] LayerId layer_at() const;
    using Picked = skarvel::Picked;
    void pick(Picked picked);
    [[nodiscard]] const Picked& picked() const { return at_hand_.picked; }
    /// The seam pointed at, by its place in the plan as it is now.
    [[nodiscard]] std::optional<std::size_t> seam_at() const;
    /// Another way to cut is looked at on the drawing, without being taken; nullptr: the job as it is.
    void look_at(std::shared_ptr<const Alternative> other);
    [[nodiscard]] const std::shared_ptr<const Alternative>& looked_at() const { return at_hand_.looked_at; }
    /// What the proof found is marked on the drawing.
    void show_evidence(std::shared_ptr<const Evidence> evidence);
    [[nodiscard]] const std::shared_ptr<const Evidence>& evidence() const { return at_hand_.evidence; }
    [[nodiscard]] FaceAt at() const { return {sign_at(), face_at()}; }
    /// All signs together, instead of the one at hand.
    void show_together(bool together);
    [[nodiscard]] bool together() const { return at_hand_.together && (job().signs.size() > 1 || job().post); }
    [[nodiscard]] Moment now() const;
    /// Now, with the hours that other jobs had taken in the plan that is shown.
    [[nodiscard]] Present present() const { return {now(), plans_.present().taken, plans_.present().changes}; }
    /// From here on the other jobs on the rack are planned beside the window, and their hours kept free.
    void mind_others();
    /// The other jobs in work, as far as they are known yet.
    [[nodiscard]] std::shared_ptr<const std::vector<RackJob>> others() const { return others_; }
    [[nodiscard]] const std::optional<Problem>& shop_damaged() const { return shop_->damaged(); }
    /// Writes the shop down as it is, where it never was.
    void keep_shop() { shop_->keep(); }
    /// Nobody has worked here before.
    [[nodiscard]] bool first_start() const { return shop_->is_new(); }
    /// A job like that one, of its own: it belongs to no file yet.
    Expected<FileStamp> begin_from(const std::filesystem::path& sample);
    /// Where its maker put a job in the line of the rack; nothing where its deadline counts.
    [[nodiscard]] std::optional<int> rank_of(const std::filesystem::path& path) const;
    /// That job comes before all others from now on, or, where it was put in line, no longer.
    void put_first(const std::filesystem::path& path);
    /// Goes on as if it were this moment: for pictures and demonstrations.
    void pretend(Moment moment);
    [[nodiscard]] const std::vector<LogRecord>& records() const { return records_; }
    /// What finished jobs say of how long work takes, and of what was tried two ways.
    [[nodiscard]] const std::vector<PaceRecord>& paces() const { return paces_; }
    [[nodiscard]] const std::vector<TrialRecord>& trials() const { return trials_; }
    /// Loads and test cuts that went to a machine, newest first.
    [[nodiscard]] const std::vector<CutRecord>& cuts() const { return cuts_; }
    void record_cut(CutRecord record);
    /// Books the film of a load that is cut in the drawer of the shop.
    void book(std::size_t cut_load);
    void book_spoilt(std::size_t spoilt_load);
    [[nodiscard]] std::string say(const Reason& reason) const {
        return library_->catalogue.say(reason, shop().display);
    }

    /// One undo step. Steps with the same non-empty `merge` that follow one another are one.
    void apply(Job job, const QString& merge = {});
    /// Types a dimension of the text at hand. Where it cannot be, the old value stays, and `denied` tells why and what
    /// can be, until the next step.
    void type_dimension(const std::function<void(Text&, const Measure&)>& set, const Measure& was,
                        const Measure& typed);
    struct Denied {
        TriedDimension tried;
        Measure typed;
        Job nearest, all_the_same;
    };
    [[nodiscard]] const std::optional<Denied>& denied() const { return denied_; }
    /// Says what was typed, by how much it is too far, and the nearest that can be.
    [[nodiscard]] Reason denied_reason() const;
    /// Ends merging: the next step is a new one.
    void settle() { line_.settle(); }
    void undo();
    void redo();
    [[nodiscard]] bool can_undo() const { return line_.can_undo(); }
    [[nodiscard]] bool can_redo() const { return line_.can_redo(); }
    void set_shop(const Shop& shop);
    /// Its tins, then the paints on the shelf.
    [[nodiscard]] std::vector<ShelfColour> colours_at_hand() const;
    /// Waits until the plan is the plan of the job as it is now.
    void wait_for_plan() { plans_.wait(); }

    void start_new();
    Expected<FileStamp> open(const std::filesystem::path& path);
    /// `force`: also over a file that another program changed.
    Expected<FileStamp> save(const std::filesystem::path& path, bool force = false);
    [[nodiscard]] const std::filesystem::path& path() const { return path_; }
    [[nodiscard]] bool unsaved() const { return line_.unsaved(); }
    [[nodiscard]] std::vector<std::filesystem::path> recent() const;
    /// Jobs for the rack: the one at hand, recent ones, and what else lies in its folder.
    [[nodiscard]] std::vector<std::filesystem::path> rack() const;

    [[nodiscard]] std::vector<Recovery::Leftover> leftovers() const { return recovery_->leftovers(); }
    Expected<Job> recover(const Recovery::Leftover& leftover);
    void forget(const Recovery::Leftover& leftover) { Recovery::forget(leftover); }
    /// Closing on purpose: the copy against crashes goes.
    void close_without_copy();

    Expected<std::vector<std::filesystem::path>> export_to(const std::filesystem::path& folder);
    /// Reads the outline of the blank at hand from an SVG or DXF file; says what is wrong with one that it cannot read.
    /// Pictures are kept beside the job and noted at a step; what cannot be kept is told.
    void keep_photographs(const std::vector<std::filesystem::path>& pictures, const std::optional<StepId>& step);
    std::string read_outline(const std::filesystem::path& path);
    /// Reads an SVG or DXF file, or traces a picture, and puts it on the face at hand. False when it could not, or was
    /// stopped: then it says why.
    bool read_drawing(const std::filesystem::path& path);
    /// Typefaces installed on this computer that are not among those here, as they were when they were looked for.
    const std::vector<TypefaceName>& installed();
    /// They are looked for anew when they are asked for next.
    void look_for_installed();
    /// Adds one to those here; nothing when its file cannot be used: then it says why.
    std::optional<TypefaceName> use_installed(const TypefaceName& name);
    /// Writes the logbook record and marks the job finished.
    Expected<long> finish_job(Outcome outcome, const std::string& note);

  Q_SIGNALS:
    void selection_changed();
    /// Only what the drawing marks has changed.
    void marks_changed();
    void job_changed();
    void plan_changed();
    void shop_changed();
    void records_changed();
    void others_known();
    void said(const QString& message, bool trouble);

  private:
    void changed();
    void keep_copy();
    void discard_copy();
    void offer_colours();
    void plan_in_background();
    void load_records();
    void remember(const std::filesystem::path& path);
    void replace_job(Job job, std::filesystem::path path, std::optional<FileStamp> stamp);

    // Typefaces that the job names and this computer has.
    void find_typefaces();

    std::shared_ptr<const Library> library_;
    std::vector<std::shared_ptr<const Library>> libraries_;
    std::optional<std::vector<InstalledTypeface>> installed_files_;
    std::vector<TypefaceName> installed_;
    DeskFiles files_;
    std::optional<std::chrono::seconds> clock_shift_;
    UndoLine line_;
    std::optional<Denied> denied_;
    std::unique_ptr<ShopStore> shop_;
    Selection at_hand_;
    void look_at_others();
    /// Another program has written the file: what it did at the bench is taken over, where nothing else differs.
    bool take_over();
    void hold_file();
    std::unique_ptr<QLockFile> lock_;
    bool minds_others_ = false;
    std::shared_ptr<const std::vector<RackJob>> others_;
    Errand<std::vector<RackJob>> looking_{this};
    std::filesystem::path path_;
    std::optional<FileStamp> stamp_;
    std::unique_ptr<Recovery> recovery_;
    std::vector<std::filesystem::path> opened_;  // here, the last one first
    InOrder copies_;
    std::optional<Logbook> logbook_;
    std::vector<LogRecord> records_;
    std::vector<PaceRecord> paces_;
    std::vector<TrialRecord> trials_;
    std::vector<CutRecord> cuts_;
    QTimer copy_timer_, minute_timer_;

    PlanService plans_;  // the last: what it plans is gone before anything that it was planned from
};

}  // namespace skarvel
