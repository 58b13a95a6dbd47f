#include <cmath>

#include "stations/cutting_parts.h"

namespace skarvel {

ProofPart::ProofPart(Desk& desk, QWidget* parent) : TrayPart(desk, parent), proving_(this) {
    prove_ = button(tr("Read the files back and lay them"), nullptr, this);
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
    prove_->setText(proving_.busy() ? tr("Cutting, weeding, laying ...") : tr("Read the files back and lay them"));
    clear(evidence_);
    if (!proven_) return;
    auto* rows = evidence_->layout();
    const auto line = [&](const QString& text, const char* role) {
        QLabel* made = label(text, role, evidence_);
        made->setWordWrap(true);
        rows->addWidget(made);
    };
    static const std::map<CutFormat, QString> names{
        {CutFormat::Svg, "SVG"}, {CutFormat::Dxf, "DXF"}, {CutFormat::Hpgl, "HPGL"}};
    for (const auto& [format, e] : *proven_) {
        double farthest = 0;
        for (const ColourProof& c : e.as_cut) farthest = std::max(farthest, c.deviation.in_mm());
        line(tr("%1, as cut: %2")
                 .arg(names.at(format),
                      e.good() ? tr("no edge farther off than %1 mm").arg(std::ceil(farthest * 1000) / 1000)
                               : tr("does not go together")),
             e.good() ? "good" : "stop");
        for (const Problem& p : e.problems) line(say(p.what), "small");
        for (const auto* all : {&e.as_cut, &e.as_measured}) {
            for (const ColourProof& c : *all) {
                for (const Reason& why : c.wrong) line(say(why), "small");
            }
        }
    }
    const Evidence& first = proven_->begin()->second;
    if (!first.by_hand.empty())
        line(tr("On the drawing: each seam, and one bad try of your hands, dashed, eight times as far off as it "
                "is."),
             "small");
    Length shift;
    for (const ColourProof& c : first.as_measured) shift = std::max(shift, c.largest_shift);
    line(tr("As measured: the sheet's rounding moves no section by more than %1 mm.")
             .arg(std::ceil(shift.in_mm() * 100) / 100),
         "small");
    for (const SeamByHand& s : first.by_hand) {
        const bool safe = s.share_open <= 0.05;
        line(tr("By hand, %1 | %2: opens in %3 of 100 tries%4.")
                 .arg(text_of(s.lower), text_of(s.upper))
                 .arg(std::lround(s.share_open * 100))
                 .arg(safe ? QString()
                           : tr(", once in twenty by %1 mm; a lap of %2 would be safe")
                                 .arg(std::ceil(s.often.in_mm() * 10) / 10)
                                 .arg(length(s.safer_lap))),
             safe ? "small" : "look");
    }
}

}  // namespace skarvel
