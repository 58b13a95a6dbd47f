#include <cmath>

#include "stations/cutting_parts.h"
#include "theme/words.h"

namespace skarvel {

ProofPart::ProofPart(Desk& desk, QWidget* parent) : TrayPart(desk, parent), proving_(this) {
    prove_ = button(in_words("proof-part.read-the-files-back"), Role::Plain, this);
    prove_->setObjectName("prove");
    add(prove_);
    evidence_ = list("evidence");
    connect(prove_, &QPushButton::clicked, this, &ProofPart::read_back);
}

void ProofPart::forget() {
    proven_.reset();
    desk_.show_evidence(nullptr);
    proving_.stop();
}

void ProofPart::read_back() {
    proving_.run(
        [job = desk_.job(), shop = desk_.shop(), plan = desk_.plan()](const std::stop_token& stop) {
            std::map<CutFormat, Evidence> all;
            const FileSet files = files_of(job, plan, shop);
            for (const CutFormat format : {CutFormat::Svg, CutFormat::Dxf, CutFormat::Hpgl}) {
                if (!stop.stop_requested()) all[format] = prove(plan, shop, files, format);
            }
            return all;
        },
        [this](const std::map<CutFormat, Evidence>& all) {
            proven_ = all;
            desk_.show_evidence(std::make_shared<const Evidence>(all.begin()->second));
            refresh();
        });
    refresh();
}

void ProofPart::show_found() {
    prove_->setEnabled(!proving_.busy() && desk_.current());
    prove_->setText(proving_.busy() ? in_words("proof-part.cutting-weeding-laying")
                                    : in_words("proof-part.read-the-files-back"));
    clear(evidence_);
    if (!proven_) return;
    auto* rows = evidence_->layout();
    const auto line = [&](const QString& text, Role role) {
        QLabel* made = label(text, role, evidence_);
        made->setWordWrap(true);
        rows->addWidget(made);
    };
    static const std::map<CutFormat, QString> names{
        {CutFormat::Svg, "SVG"}, {CutFormat::Dxf, "DXF"}, {CutFormat::Hpgl, "HPGL"}};
    for (const auto& [format, e] : *proven_) {
        double farthest = 0;
        for (const ColourProof& c : e.as_cut) farthest = std::max(farthest, c.deviation.in_mm());
        line(in_words("proof-part.as-cut",
                      {{"format", names.at(format)},
                       {"found", e.good() ? in_words("proof-part.no-edge-farther-off",
                                                     {{"farthest", std::ceil(farthest * 1000) / 1000}})
                                          : in_words("proof-part.does-not-go-together")}}),
             e.good() ? Role::Good : Role::Stop);
        for (const Problem& p : e.problems) line(say(p.what), Role::Small);
        const auto say_wrong = [&](const auto& all) {
            for (const auto& c : all) {
                for (const Reason& why : c.wrong) line(say(why), Role::Small);
            }
        };
        say_wrong(e.as_cut);
        say_wrong(e.as_measured);
    }
    const Evidence& first = proven_->begin()->second;
    if (!first.by_hand.empty()) line(in_words("proof-part.on-the-drawing-each"), Role::Small);
    Length shift;
    for (const MeasuredProof& c : first.as_measured) shift = std::max(shift, c.largest_shift);
    line(in_words("proof-part.as-measured-the-sheets", {{"shift", std::ceil(shift.in_mm() * 100) / 100}}), Role::Small);
    for (const SeamByHand& s : first.by_hand) {
        const bool safe = s.share_open <= 0.05;
        line(in_words("proof-part.by-hand-opens-in",
                      {{"lower", text_of(s.lower)},
                       {"upper", text_of(s.upper)},
                       {"tries", std::lround(s.share_open * 100)},
                       {"safer",
                        safe ? QString()
                             : in_words("proof-part.once-in-twenty-by", {{"gap", std::ceil(s.often.in_mm() * 10) / 10},
                                                                         {"lap", length(s.safer_lap)}})}}) +
                 (s.step > Length{} ? " " + say(Reason{"proof-part.halves-out-of-line",
                                                       {{"step", s.step}, {"distance", s.seen_from}}})
                                    : QString()),
             safe ? Role::Small : Role::Look);
    }
}

}  // namespace skarvel
