#include "window/desk.h"

#include "window/fields.h"

#include <QCoreApplication>
#include <QDateTime>
#include <QImage>

#include <fstream>

#include "bench/merging.h"
#include "drawing/drawing_file.h"
#include "drawing/outline_file.h"
#include "files/exporting.h"
#include "files/job_file.h"
#include "files/photographs.h"
#include "job/blank_commands.h"
#include "job/drawing_commands.h"
#include "job/text_commands.h"
#include "theme/words.h"
#include "values/checksum.h"
#include "window/hand_over.h"
#include "window/trace_dialog.h"
#include "window/waited.h"

namespace skarvel {

namespace fs = std::filesystem;

namespace {

// At once: what is said later takes the place of what was said before.
void say_all(Desk& desk, const std::vector<Problem>& problems) {
    if (problems.empty()) return;
    std::string all;
    for (const Problem& p : problems) {
        const std::string remedy = desk.say(p.remedy);
        all += (all.empty() ? "" : "\n") + desk.say(p.what) + (remedy.empty() ? "" : ": " + remedy);
    }
    Q_EMIT desk.said(QString::fromStdString(all), true);
}

constexpr int copy_after_ms = 1000;
constexpr std::size_t most_recent = 8;

// From the root, without detours; none stays none.
fs::path in_full(const fs::path& path) {
    std::error_code error;
    return path.empty() ? path : fs::absolute(path, error).lexically_normal();
}

// Those that were opened here, then what the list says; each once, and only what is there.
std::vector<fs::path> recent_of(std::vector<fs::path> paths, const fs::path& list) {
    std::ifstream in(list);
    for (std::string line; std::getline(in, line);)
        if (std::find(paths.begin(), paths.end(), line) == paths.end()) paths.emplace_back(line);
    std::error_code error;
    std::erase_if(paths, [&](const fs::path& path) { return !fs::exists(path, error); });
    if (paths.size() > most_recent) paths.resize(most_recent);
    return paths;
}

std::chrono::local_seconds wall_clock() {
    const QDateTime now = QDateTime::currentDateTime();
    return std::chrono::local_seconds(std::chrono::seconds(now.toSecsSinceEpoch() + now.offsetFromUtc()));
}

}  // namespace

Desk::Desk(std::shared_ptr<const Library> library, DeskFiles files, std::optional<Moment> as_if_now)
    : library_(std::move(library)), files_(std::move(files)) {
    if (as_if_now) clock_shift_ = *as_if_now - wall_clock();
    std::error_code error;
    fs::create_directories(files_.data, error);
    shop_ = std::make_unique<ShopStore>(files_.data / "shop.json");
    speak_from(library_->catalogue, shop().display);
    offer_colours();
    recovery_ = std::make_unique<Recovery>(files_.data / "unsaved");
    load_records();
    copy_timer_.setSingleShot(true);
    connect(&copy_timer_, &QTimer::timeout, this, &Desk::keep_copy);
    minute_timer_.setInterval(30'000);
    connect(&minute_timer_, &QTimer::timeout, this, [this] {
        take_over();
        plan_in_background();
    });
    minute_timer_.start();
    line_.restart(new_job(*library_));
    connect(&plans_, &PlanService::planned, this, &Desk::plan_changed);
    connect(&plans_, &PlanService::progressed, this, &Desk::marks_changed);
    plan_in_background();
}

Desk::~Desk() {
    looking_.stop();
    copies_.wait();
}

Moment Desk::now() const {
    return std::chrono::floor<Minutes>(wall_clock() + clock_shift_.value_or(std::chrono::seconds(0)));
}

void Desk::pretend(Moment moment) {
    clock_shift_ = moment - wall_clock();
    plan_in_background();
}

void Desk::select(std::size_t sign, std::size_t face) {
    const std::size_t taken = std::min(sign, job().signs.size() - 1);
    at_hand_.take_face(taken, std::min(face, job().signs[taken].faces.size() - 1));
    Q_EMIT selection_changed();
}

void Desk::select_layer(const LayerId& layer) {
    if (layer == layer_at()) return;
    settle();
    const std::vector<Layer> all = layers();
    const auto at = std::find_if(all.begin(), all.end(), [&](const Layer& l) { return l.id == layer; });
    // With lettering its colour is at hand.
    if (at != all.end() && at->kind == LayerKind::Lettering) at_hand_.take_colour(place_of(face(), at->colour));
    at_hand_.layer = layer;
    Q_EMIT job_changed();
}

LayerId Desk::layer_at() const {
    const std::vector<Layer> all = layers();
    const auto found = std::find_if(all.begin(), all.end(), [&](const Layer& l) { return l.id == at_hand_.layer; });
    if (found != all.end()) return found->id;
    const auto own = std::find_if(all.begin(), all.end(), [&](const Layer& l) {
        return l.kind == LayerKind::Lettering && l.colour == colour().id;
    });
    return own == all.end() ? LayerId{} : own->id;
}

void Desk::pick(Picked picked) {
    if (picked == at_hand_.picked) return;
    at_hand_.picked = std::move(picked);
    Q_EMIT job_changed();
}

std::optional<std::size_t> Desk::seam_at() const {
    const ColourPlan* plan = face_plan();
    const auto& picked = at_hand_.picked.seam;
    if (!picked || plan == nullptr) return std::nullopt;
    const auto& seams = plan->cut.loads->seams;
    for (std::size_t i = 0; i < seams.size(); ++i) {
        const Seam& s = seams[i];
        const bool here = s.axis == picked->axis && std::abs(s.where - picked->where) <= 2;
        if (here && s.from < picked->to && s.to > picked->from) return i;
    }
    return std::nullopt;
}

void Desk::look_at(std::shared_ptr<const Alternative> other) {
    if (other == at_hand_.looked_at) return;
    at_hand_.looked_at = std::move(other);
    Q_EMIT marks_changed();
}

void Desk::show_evidence(std::shared_ptr<const Evidence> evidence) {
    if (evidence == at_hand_.evidence) return;
    at_hand_.evidence = std::move(evidence);
    Q_EMIT marks_changed();
}

void Desk::select_colour(std::size_t colour) {
    if (colour == at_hand_.colour) return;
    at_hand_.take_colour(colour);
    // What is drawn is another colour's: it is laid out anew before anything else asks for it.
    Q_EMIT marks_changed();
    Q_EMIT job_changed();
}

void Desk::select_text(std::size_t text) {
    if (text == at_hand_.text && !at_hand_.art) return;
    settle();
    denied_.reset();
    at_hand_.text = text;
    at_hand_.art.reset();
    Q_EMIT job_changed();
}

void Desk::select_art(std::size_t art) {
    if (at_hand_.art == art) return;
    settle();
    at_hand_.art = art;
    Q_EMIT job_changed();
}

void Desk::show_together(bool together) {
    at_hand_.together = together;
    Q_EMIT selection_changed();
}

void Desk::apply(Job job, const QString& merge) {
    if (const auto more = beyond_limits(job)) {
        Q_EMIT said(QString::fromStdString(say(*more)), true);
        return Q_EMIT job_changed();
    }
    if (line_.take(arranged_for_blank(this->job(), std::move(job)), merge.toStdString())) changed();
}

void Desk::undo() {
    if (line_.undo()) changed();
}

void Desk::redo() {
    if (line_.redo()) changed();
}

void Desk::type_dimension(const std::function<void(Text&, const Measure&)>& set, const Measure& was,
                          const Measure& typed) {
    const auto with = [&](const Measure& m) {
        Job job = this->job();
        set(job.signs[sign_at()].faces[face_at()].lettering.texts[text_at()], m);
        return job;
    };
    if (const ColourPlan* planned = face_plan(); planned != nullptr && current()) {
        TriedDimension tried = try_dimension(face().lettering, text_at(), room_of(sign().blank, *planned->face->blank),
                                             library_->typefaces, set, was, typed, shop().display);
        if (!tried.fits) {
            Job nearest = with(tried.nearest);
            denied_ = Denied{std::move(tried), typed, std::move(nearest), with(typed)};
            Q_EMIT said(QString::fromStdString(say(denied_reason())), true);
            Q_EMIT plan_changed();
            return;
        }
    }
    apply(with(typed));
}

Reason Desk::denied_reason() const {
    const TriedDimension& t = denied_->tried;
    return {denied_->typed.value > t.nearest.value ? "dimension.too-much" : "dimension.too-little",
            {{"typed", denied_->typed.value}, {"over", t.over}, {"nearest", t.nearest.value}}};
}

void Desk::changed() {
    denied_.reset();
    plan_in_background();
    // Not restarted while it runs: however fast someone types, a copy is made within a second of the first change.
    if (!copy_timer_.isActive()) copy_timer_.start(copy_after_ms);
    Q_EMIT job_changed();
}

void Desk::keep_copy() {
    if (!unsaved()) return discard_copy();
    // A copy of the job costs little; turning it into text and writing it down is done beside the window.
    copies_.start([this, path = path_, job = job()] {
        const auto kept = recovery_->keep(path, write_job(job));
        if (kept) return;
        hand_over(this, [this, what = kept.error().what] { Q_EMIT said(QString::fromStdString(say(what)), true); });
    });
}

void Desk::discard_copy() {
    copies_.start([this] { recovery_->discard(); });
}

void Desk::close_without_copy() {
    copy_timer_.stop();
    discard_copy();
    copies_.wait();
}

std::vector<ShelfColour> Desk::colours_at_hand() const {
    std::vector<ShelfColour> colours = shop().tins;
    const auto& shelf = library_->trade.shelf;
    colours.insert(colours.end(), shelf.begin(), shelf.end());
    return colours;
}

void Desk::offer_colours() {
    ColourButton::offer(colours_at_hand(), [this](const ShelfColour& kept) {
        Shop changed = shop();
        std::erase_if(changed.tins, [&](const ShelfColour& tin) { return tin.name == kept.name; });
        changed.tins.push_back(kept);
        set_shop(changed);
    });
}

void Desk::set_shop(const Shop& shop) {
    const std::vector<std::string> line = this->shop().line;
    const auto kept = shop_->set(shop);
    if (kept && !*kept) return;
    const bool line_changed = !(line == this->shop().line);
    speak_from(library_->catalogue, this->shop().display);
    offer_colours();
    if (!kept) Q_EMIT said(QString::fromStdString(say(kept.error().what)), true);
    if (line_changed) look_at_others();
    plan_in_background();
    Q_EMIT shop_changed();
}

void Desk::plan_in_background() { plans_.want(library_, job(), shop(), now(), others_, rank_of(path_)); }

namespace {

std::optional<int> rank_in(const Shop& shop, const fs::path& path) {
    const auto at = std::find(shop.line.begin(), shop.line.end(), path.string());
    if (path.empty() || at == shop.line.end()) return std::nullopt;
    return static_cast<int>(at - shop.line.begin());
}

}  // namespace

std::optional<int> Desk::rank_of(const fs::path& path) const { return rank_in(shop(), path); }

void Desk::put_first(const fs::path& path) {
    Shop changed = shop();
    if (std::erase(changed.line, path.string()) == 0) changed.line.insert(changed.line.begin(), path.string());
    set_shop(changed);
}

void Desk::mind_others() {
    minds_others_ = true;
    look_at_others();
}

// Files that cannot be read are told on the rack; here they take no hours.
void Desk::look_at_others() {
    if (!minds_others_) return;
    std::vector<fs::path> paths = rack();
    std::erase(paths, path_);
    looking_.run(
        [paths, shop = shop(), library = library_, now = now(),
         changes = present().changes](const std::stop_token& stop) {
            std::vector<RackJob> others;
            for (const fs::path& path : paths) {
                look_for_stop();
                const auto text = read_file(path);
                const auto job = text ? read_job(*text) : tl::unexpected(text.error());
                if (!job || job->finished) continue;
                const auto plan = Planner().plan(*job, shop, *library, {now, {}, changes}, stop);
                if (plan && !plan->clock->slots.empty()) {
                    others.push_back(on_the_rack(*job, *plan, now));
                    others.back().rank = rank_in(shop, path);
                    others.back().file = path.string();
                }
            }
            return others;
        },
        [this](const std::vector<RackJob>& others) {
            others_ = std::make_shared<const std::vector<RackJob>>(others);
            plan_in_background();
            Q_EMIT others_known();
        });
}

// ---- files

void Desk::replace_job(Job job, fs::path path, std::optional<FileStamp> stamp) {
    line_.restart(std::move(job));
    const std::size_t sign = at_hand_.sign;
    const std::size_t face = at_hand_.face;
    const bool together = at_hand_.together;
    at_hand_ = {.sign = sign, .face = face, .together = together};
    // A face that carries art alone comes with that in hand.
    const Face& first = this->job().signs.front().faces.front();
    if (first.lettering.main().words.empty() && !first.art.empty()) at_hand_.art = 0;
    find_typefaces();
    path_ = in_full(path);
    stamp_ = stamp;
    copy_timer_.stop();
    others_.reset();
    plan_in_background();  // before what waits for the disk
    discard_copy();
    hold_file();
    look_at_others();
    Q_EMIT job_changed();
}

// Without a step each goes with the one that was at the bench when it was taken.
void Desk::keep_photographs(const std::vector<fs::path>& pictures, const std::optional<StepId>& step) {
    Job job = this->job();
    for (const fs::path& picture : pictures) {
        std::error_code error;
        const bool huge = fs::file_size(picture, error) > most_photograph_bytes;
        const auto bytes = error || huge
                               ? tl::unexpected(Problem{{huge && !error ? "photograph.huge" : "photograph.none", {}},
                                                        Station::Bench,
                                                        {"photograph.another", {}},
                                                        Mark::Look})
                               : read_file(picture);
        auto kept =
            bytes ? keep_photograph(path_, *bytes, step.value_or(StepId{}), now()) : tl::unexpected(bytes.error());
        if (!kept) {
            Q_EMIT said(QString::fromStdString(picture.filename().string() + ": " + say(kept.error().what) + ": " +
                                               say(kept.error().remedy)),
                        true);
            continue;
        }
        if (!step) {
            const Step* then = at_bench(*plan().bench, job.bench.ticks, kept->taken);
            if (then != nullptr) kept->step = then->id;
        }
        auto& all = job.bench.photographs;
        if (std::find(all.begin(), all.end(), *kept) == all.end()) all.push_back(*kept);
    }
    apply(std::move(job));
}

bool Desk::take_over() {
    const auto stamp = path_.empty() ? std::nullopt : stamp_of(path_);
    if (!stamp || stamp == stamp_) return false;
    const auto text = read_file(path_);
    auto theirs = text ? read_job(*text) : tl::unexpected(text.error());
    if (!theirs) return false;
    Job base = line_.saved();
    const BenchRecord both = merged(base.bench, job().bench, theirs->bench);
    base.bench = theirs->bench;
    if (!(base == *theirs)) return false;
    stamp_ = stamp;
    line_.mark_saved_as(std::move(*theirs));
    Job mine = job();
    mine.bench = both;
    if (!(mine == job())) {
        apply(std::move(mine));
        Q_EMIT said(in_words("desk.taken-over"), false);
    }
    return true;
}

// Whoever opens it next is told; nobody is kept out.
void Desk::hold_file() {
    lock_.reset();
    if (path_.empty()) return;
    const fs::path beside = path_.parent_path() / ("." + path_.filename().string() + ".open");
    lock_ = std::make_unique<QLockFile>(QString::fromStdString(beside.string()));
    lock_->setStaleLockTime(0);
    if (lock_->tryLock(0)) return;
    qint64 pid = 0;
    QString host, program;
    if (lock_->error() == QLockFile::LockFailedError && lock_->getLockInfo(&pid, &host, &program))
        Q_EMIT said(in_words("desk.open-elsewhere", {{"host", host}}), true);
    lock_.reset();
}

void Desk::start_new() { replace_job(new_job(*library_), {}, std::nullopt); }

Expected<FileStamp> Desk::begin_from(const fs::path& sample) {
    auto opened = open(sample);
    if (opened) replace_job(Job(job()), {}, std::nullopt);
    return opened;
}

Expected<FileStamp> Desk::open(const fs::path& path) {
    const auto stamp = stamp_of(path);
    auto job = waited<Job>(in_words("window.reading", {{"name", path.filename().string()}}),
                           [&](const std::stop_token&, const ToldShare&) -> Expected<Job> {
                               const auto text = read_file(path);
                               if (!text) return tl::unexpected(text.error());
                               return read_job(*text);
                           });
    if (!job) return tl::unexpected(job.error());
    replace_job(std::move(*job), path, stamp);
    remember(path);
    return *stamp;
}

Expected<FileStamp> Desk::save(const fs::path& path, bool force) {
    const auto expected = in_full(path) == path_ && !force ? stamp_ : std::nullopt;
    auto saved = save_file(path, write_job(job()), expected);
    if (!saved && saved.error().what.id == "file.changed" && take_over())
        saved = save_file(path, write_job(job()), stamp_);
    if (!saved) return saved;
    const bool moved = in_full(path) != path_;
    path_ = in_full(path);
    if (moved) hold_file();
    stamp_ = *saved;
    line_.mark_saved();
    discard_copy();
    remember(path);
    Q_EMIT job_changed();
    return saved;
}

Expected<Job> Desk::recover(const Recovery::Leftover& leftover) {
    auto job = read_job(leftover.job_text);
    if (!job) return job;
    const fs::path path = leftover.belongs_to;
    // The file itself counts as it is on the disk: saving over it is then no surprise.
    Job on_disk;
    if (!path.empty()) {
        if (const auto text = read_file(path)) {
            if (const auto read = read_job(*text)) on_disk = *read;
        }
    }
    replace_job(*job, path, path.empty() ? std::nullopt : stamp_of(path));
    line_.mark_saved_as(std::move(on_disk));
    keep_copy();
    Recovery::forget(leftover);
    Q_EMIT job_changed();
    return job;
}

std::vector<fs::path> Desk::recent() const { return recent_of(opened_, files_.data / "recent.txt"); }

std::vector<fs::path> Desk::rack() const {
    constexpr std::size_t most = 60;
    std::vector<fs::path> all;
    std::error_code error;
    // One job is one ticket, however its path was written.
    const auto add = [&](const fs::path& path) {
        const auto same = [&](const fs::path& known) { return known == path || fs::equivalent(known, path, error); };
        if (all.size() < most && std::none_of(all.begin(), all.end(), same)) all.push_back(in_full(path));
    };
    if (!path_.empty()) add(path_);
    for (const fs::path& path : recent()) add(path);
    if (!path_.empty()) {
        std::vector<fs::path> beside;
        for (const auto& entry :
             fs::directory_iterator(path_.parent_path().empty() ? "." : path_.parent_path(), error)) {
            if (entry.path().extension() == ".skarvel") beside.push_back(fs::absolute(entry.path(), error));
        }
        std::sort(beside.begin(), beside.end());
        for (const fs::path& path : beside) add(path);
    }
    return all;
}

void Desk::remember(const fs::path& path) {
    std::error_code error;
    const fs::path whole = fs::absolute(path, error);
    std::erase(opened_, whole);
    opened_.insert(opened_.begin(), whole);
    // What is on the disk for good takes a while: beside the window.
    copies_.start([opened = opened_, list = files_.data / "recent.txt"] {
        std::string text;
        for (const fs::path& p : recent_of(opened, list)) text += p.string() + "\n";
        (void)save_file(list, text);
    });
}

std::string Desk::read_outline(const fs::path& path) {
    const std::string name = path.filename().string();
    auto read = waited<ReadOutline>(in_words("window.reading", {{"name", name}}),
                                    [&](const std::stop_token&, const ToldShare&) -> Expected<ReadOutline> {
                                        const auto bytes = read_file(path);
                                        if (!bytes) return tl::unexpected(bytes.error());
                                        return skarvel::read_outline(*bytes, name);
                                    });
    if (!read) {
        const std::string remedy = say(read.error().remedy);
        return say(read.error().what) + (remedy.empty() ? "" : ": " + remedy);
    }
    const ColourPlan* front = plan().of(sign().faces.front().id);
    const Length width = front != nullptr ? from_grid(front->face->blank->face.width()) : Length{};
    Job job = this->job();
    take_outline(job.signs[sign_at()].blank, std::move(read->outline), width, name);
    apply(std::move(job));
    say_all(*this, read->notes);
    return {};
}

// ---- drawings and typefaces

namespace {

GreyPicture grey(const QImage& image) {
    const QImage flat = image.convertToFormat(QImage::Format_ARGB32);
    GreyPicture out{flat.width(), flat.height(), {}};
    out.pixels.reserve(static_cast<std::size_t>(flat.width()) * static_cast<std::size_t>(flat.height()));
    for (int y = 0; y < flat.height(); ++y) {
        for (int x = 0; x < flat.width(); ++x) {
            // What is clear counts as paper.
            const QRgb c = flat.pixel(x, y);
            const int a = qAlpha(c);
            out.pixels.push_back(static_cast<unsigned char>((qGray(c) * a + 255 * (255 - a)) / 255));
        }
    }
    return out;
}

bool is_picture(const std::string& bytes) { return bytes.starts_with("\x89PNG") || bytes.starts_with("\xff\xd8"); }

}  // namespace

bool Desk::read_drawing(const fs::path& path) {
    const auto bytes = read_file(path);
    const auto trouble = [&](const Problem& p) {
        const std::string remedy = say(p.remedy);
        Q_EMIT said(QString::fromStdString(say(p.what) + (remedy.empty() ? "" : ": " + remedy)), true);
        return false;
    };
    if (!bytes) return trouble(bytes.error());
    const std::string name = path.filename().string();
    PlacedDrawing placed;
    if (is_picture(*bytes)) {
        QImage image;
        constexpr int largest = 4000;
        if (!image.loadFromData(QByteArray::fromRawData(bytes->data(), static_cast<qsizetype>(bytes->size()))) ||
            image.isNull())
            return trouble({{"drawing.no-picture", {{"file", name}}}, Station::Lettering, {}, Mark::Stop});
        if (std::max(image.width(), image.height()) > largest)
            image = image.scaled(largest, largest, Qt::KeepAspectRatio, Qt::SmoothTransformation);
        auto choose = TraceDialog(grey(image), name);
        if (choose.exec() != QDialog::Accepted) return false;
        const auto traced = choose.traced();
        if (!traced) return trouble(traced.error());
        FileDrawing drawing = *traced;
        drawing.source = name;
        drawing.checksum = checksum_of(*bytes);
        if (choose.keeps_picture()) {
            drawing.picture.bytes = std::make_shared<const std::string>(*bytes);
        } else {
            drawing.picture = {};
        }
        placed.drawing = std::move(drawing);
        placed.size = measure_of(4_in, shop().display);
    } else {
        auto read = waited<ReadDrawing>(in_words("window.reading", {{"name", name}}),
                                        [&](const std::stop_token& stop, const ToldShare& told) {
                                            return read_drawing_file(*bytes, name, stop, told);
                                        });
        if (!read) return trouble(read.error());
        say_all(*this, read->notes);
        placed.drawing = std::move(read->drawing);
        const Length sixteenth = 0.0625_in;
        const Length width = read->width;
        placed.size = measure_of(width > sixteenth ? sixteenth * (width.nm() / sixteenth.nm()) : 4_in, shop().display);
    }
    // A drawing larger than the room comes in as wide as the room is.
    if (const ColourPlan* plan = face_plan(); plan != nullptr && !plan->face->blank->usable.empty()) {
        const Box box = bounds_of(*placed.drawing);
        const double ratio =
            static_cast<double>(box.height()) / static_cast<double>(std::max<std::int64_t>(1, box.width()));
        const double room_wide = std::min(grid_to_mm(plan->face->blank->usable.width()),
                                          grid_to_mm(plan->face->blank->usable.height()) / ratio);
        if (placed.size.value.in_mm() > room_wide) {
            const Length eighth = 0.125_in;
            placed.size = measure_of(eighth * std::max<std::int64_t>(1, Length::from_mm(room_wide).nm() / eighth.nm()),
                                     shop().display);
        }
    }
    const std::size_t colours = colours_found(*placed.drawing).size();
    Job with = skarvel::add_art(job(), at(), std::move(placed), library_->typefaces);
    if (const ColourPlan* plan = face_plan()) with = place_clear(with, at(), face().art.size(), *plan, shop().display);
    apply(std::move(with));
    if (colours > 1) Q_EMIT said(in_words("desk.colours-found", {{"colours", colours}}), false);
    return true;
}

void Desk::look_for_installed() {
    installed_files_.reset();
    installed_.clear();
}

const std::vector<TypefaceName>& Desk::installed() {
    if (!installed_files_) {
        installed_files_ = installed_typefaces();
        for (const InstalledTypeface& t : *installed_files_) {
            if (skarvel::find_typeface(library_->typefaces, t.name) == nullptr) installed_.push_back(t.name);
        }
    }
    return installed_;
}

std::optional<TypefaceName> Desk::use_installed(const TypefaceName& name) {
    (void)installed();
    if (const Typeface* here = skarvel::find_typeface(library_->typefaces, name)) return here->name;
    for (const InstalledTypeface& t : *installed_files_) {
        if (t.name.family != name.family || t.name.style != name.style) continue;
        auto bytes = read_file(t.file);
        if (!bytes) break;
        auto typeface = read_typeface(std::make_shared<const std::string>(std::move(*bytes)));
        if (!typeface) {
            Q_EMIT said(QString::fromStdString(say(typeface.error().what)), true);
            return std::nullopt;
        }
        typeface->name.family = name.family;
        typeface->name.style = name.style;
        auto library = std::make_shared<Library>(*library_);
        library->typefaces.push_back(*typeface);
        // Widgets may still hold on to the one before.
        libraries_.push_back(library_);
        library_ = std::move(library);
        plan_in_background();
        return typeface->name;
    }
    return std::nullopt;
}

void Desk::find_typefaces() {
    std::vector<TypefaceName> missing;
    for (const Sign& sign : job().signs) {
        for (const Face& face : sign.faces) {
            for (const Text& text : face.lettering.texts) {
                if (skarvel::find_typeface(library_->typefaces, text.typeface) == nullptr)
                    missing.push_back(text.typeface);
            }
        }
    }
    for (const TypefaceName& name : missing) use_installed(name);
}

Expected<std::vector<fs::path>> Desk::export_to(const fs::path& folder) {
    const auto left_out = std::make_shared<std::vector<Problem>>();
    auto written =
        waited<std::vector<fs::path>>(in_words("window.writing", {{"folder", folder.string()}}),
                                      [folder, left_out, ready = current(), job = job(), plan = plan(), shop = shop(),
                                       library = library_, now = now()](const std::stop_token&, const ToldShare&) {
                                          return export_job(job, ready ? plan : skarvel::plan(job, shop, *library, now),
                                                            shop, *library, folder, left_out.get());
                                      });
    if (written) say_all(*this, *left_out);
    return written;
}

void Desk::load_records() {
    if (!logbook_) {
        auto book = Logbook::open(files_.data / "logbook.sqlite");
        if (!book) return;
        logbook_ = std::move(*book);
    }
    if (auto all = logbook_->all()) records_ = std::move(*all);
    if (auto all = logbook_->paces()) paces_ = std::move(*all);
    if (auto all = logbook_->trials()) trials_ = std::move(*all);
    if (auto all = logbook_->cuts()) cuts_ = std::move(*all);
}

void Desk::record_cut(CutRecord record) {
    record.at = write_moment(now());
    load_records();
    const auto added =
        logbook_ ? logbook_->add_cut(record) : refused({"logbook.failed", {{"detail", std::string()}}}, "");
    if (!added) Q_EMIT said(QString::fromStdString(say(added.error().what)), true);
    load_records();
    Q_EMIT records_changed();
}

void Desk::book(std::size_t cut_load) {
    if (cut_load >= job().bench.cut.size()) return;
    Booked booked = book_film(job(), shop(), cut_load);
    set_shop(booked.shop);
    apply(std::move(booked.job));
}

void Desk::book_spoilt(std::size_t spoilt_load) {
    if (spoilt_load >= job().bench.spoilt.size()) return;
    Booked booked = skarvel::book_spoilt(job(), shop(), spoilt_load);
    set_shop(booked.shop);
    apply(std::move(booked.job));
}

Expected<long> Desk::finish_job(Outcome outcome, const std::string& note) {
    wait_for_plan();
    const Job done = finish(job(), outcome, note, now());
    if (!logbook_) {
        auto book = Logbook::open(files_.data / "logbook.sqlite");
        if (!book) return tl::unexpected(book.error());
        logbook_ = std::move(*book);
    }
    auto added = logbook_->add(
        record_of(done, plan(), shop()),
        lessons_of(done, plan(), paced(library().trade.hands_on, shop().paces), library().catalogue, shop().display));
    if (!added) return added;
    apply(done);
    load_records();
    Q_EMIT records_changed();
    return added;
}

}  // namespace skarvel
