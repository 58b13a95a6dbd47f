// window/plan_service.h
//
// The plan service: the one worker that plans what is at hand. The latest wish wins: a newer one stops the running
// plan. What it has kept of earlier plans stays with it.
#pragma once

#include <QObject>
#include <condition_variable>
#include <memory>
#include <mutex>
#include <optional>
#include <stop_token>
#include <thread>

#include "job/on_the_rack.h"

namespace skarvel {

class PlanService : public QObject {
    Q_OBJECT

  public:
    PlanService();
    ~PlanService() override;

    /// From here on the plan of this job is wanted.
    /// `others`: jobs whose hours are kept free where they come before it, with its own `rank` in the maker's line.
    void want(std::shared_ptr<const Library> library, const Job& job, const Shop& shop, Moment now,
              std::shared_ptr<const std::vector<RackJob>> others, std::optional<int> rank);
    /// The present of the plan that is shown.
    [[nodiscard]] const Present& present() const { return present_; }
    /// The last plan that was ready; `current` tells whether it is the one that is wanted.
    [[nodiscard]] const Plan& plan() const { return plan_; }
    [[nodiscard]] bool current() const { return planned_ == revision_; }
    /// Of a batch that takes its time: how many faces are planned, of how many.
    [[nodiscard]] std::pair<std::size_t, std::size_t> progress() const { return progress_; }
    /// Waits until the plan that is wanted is there.
    void wait();

  Q_SIGNALS:
    void planned();
    void progressed();

  private:
    struct Wish {
        std::shared_ptr<const Library> library;
        Job job;
        Shop shop;
        Moment now;
        std::shared_ptr<const std::vector<RackJob>> others;
        std::optional<int> rank;
        std::uint64_t revision;
    };
    void work(const std::stop_token& stop);
    void take(std::shared_ptr<const Plan> plan, Present present, std::uint64_t revision);
    void take_latest();

    Plan plan_;
    Present present_{Moment{}};
    std::uint64_t revision_ = 0, planned_ = 0;
    std::pair<std::size_t, std::size_t> progress_;

    std::mutex mutex_;
    std::condition_variable_any wake_, ready_;
    std::optional<Wish> wish_;
    std::optional<std::stop_source> running_;
    std::shared_ptr<const Plan> latest_;
    Present latest_present_{Moment{}};
    std::uint64_t latest_revision_ = 0;
    std::jthread worker_;
};

}  // namespace skarvel
