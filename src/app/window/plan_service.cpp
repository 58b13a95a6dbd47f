#include "window/plan_service.h"

#include <QCoreApplication>
#include <QMetaObject>

#include "files/moment.h"
#include "window/hand_over.h"

namespace skarvel {
namespace {

// In which the clock on the wall may be put forward or back while work goes on.
constexpr std::chrono::days days_ahead{400};

// The job stays as it is, and the last plan that could be made; what went wrong is told.
Plan broken_plan(const std::exception& broken) {
    Plan plan;
    plan.problems.push_back({{"plan.broke", {{"detail", std::string(broken.what())}}},
                             Station::Blank,
                             {"plan.broke-remedy", {}},
                             Mark::Stop});
    plan.tasks = std::vector<Task>{};
    plan.clock_reads.tasks = plan.tasks;
    plan.clock = Schedule{};
    plan.bench = BenchPlan{};
    return plan;
}

}  // namespace

PlanService::PlanService() : worker_([this](const std::stop_token& stop) { work(stop); }) {}

PlanService::~PlanService() {
    worker_.request_stop();
    {
        const std::lock_guard lock(mutex_);
        if (running_) running_->request_stop();
    }
    wake_.notify_all();
}

void PlanService::want(std::shared_ptr<const Library> library, const Job& job, const Shop& shop, Moment now,
                       std::shared_ptr<const std::vector<RackJob>> others, std::optional<int> rank) {
    const std::lock_guard lock(mutex_);
    wish_ = Wish{std::move(library), job, shop, now, std::move(others), rank, ++revision_};
    if (running_) running_->request_stop();
    wake_.notify_all();
}

void PlanService::work(const std::stop_token& stop) {
    Planner planner;
    std::shared_ptr<const Library> library;
    while (!stop.stop_requested()) {
        Wish wish;
        std::stop_source source;
        {
            std::unique_lock lock(mutex_);
            wake_.wait(lock, stop, [&] { return wish_.has_value(); });
            if (stop.stop_requested()) return;
            wish = std::move(*wish_);
            wish_.reset();
            running_ = source;
        }
        // What was planned with other typefaces does not count.
        if (wish.library != library) planner = Planner();
        library = wish.library;
        const auto on_face = [&](std::size_t done, std::size_t faces) {
            if (faces < 2) return;
            hand_over(this, [this, done, faces] {
                progress_ = {done, faces};
                if (!current()) Q_EMIT progressed();
            });
        };
        std::optional<Plan> planned;
        Present present{wish.now, {}, clock_changes(wish.now, wish.now + days_ahead)};
        try {
            if (wish.others && wish.shop.minds_others)
                present.taken = hours_of_others(*wish.others, {wish.job.deadline, wish.rank}, wish.shop, wish.now);
            planned = planner.plan(wish.job, wish.shop, *library, present, source.get_token(), on_face);
        } catch (const std::exception& broken) {
            planner = Planner();
            planned = broken_plan(broken);
        }
        {
            const std::lock_guard lock(mutex_);
            running_.reset();
            if (!planned) continue;
            latest_ = std::make_shared<const Plan>(std::move(*planned));
            latest_present_ = std::move(present);
            latest_revision_ = wish.revision;
        }
        ready_.notify_all();
        hand_over(this, [this] { take_latest(); });
    }
}

void PlanService::take_latest() {
    std::unique_lock lock(mutex_);
    auto plan = latest_;
    auto present = latest_present_;
    const std::uint64_t revision = latest_revision_;
    lock.unlock();
    take(std::move(plan), std::move(present), revision);
}

void PlanService::take(std::shared_ptr<const Plan> plan, Present present, std::uint64_t revision) {
    if (!plan || revision <= planned_) return;
    plan_ = *plan;
    present_ = std::move(present);
    planned_ = revision;
    Q_EMIT planned();
}

void PlanService::wait() {
    constexpr std::chrono::milliseconds unseen{50};  // a stop as short as that is not seen
    constexpr std::chrono::milliseconds look{5};
    const auto there = [this] { return latest_revision_ >= revision_; };
    const auto waited = [&](std::chrono::milliseconds time) {
        std::unique_lock lock(mutex_);
        return ready_.wait_for(lock, time, there);
    };
    // Before the first plan there is nothing that could be painted.
    if (planned_ == 0) {
        std::unique_lock lock(mutex_);
        ready_.wait(lock, there);
        lock.unlock();
        return take_latest();
    }
    // What takes longer is waited for by a window that goes on painting; nothing else may be begun until then.
    for (bool ready = waited(unseen); !ready; ready = waited(look))
        QCoreApplication::processEvents(QEventLoop::ExcludeUserInputEvents, static_cast<int>(look.count()));
    take_latest();
}

}  // namespace skarvel
