#include "drawing/together.h"

#include <QMouseEvent>
#include <QPainter>
#include <algorithm>

#include "theme/theme.h"
#include "theme/words.h"
#include "window/ribbon.h"

namespace skarvel {
namespace {

constexpr double side = 24;

}  // namespace

Together::Together(Desk& desk, QWidget* parent) : QWidget(parent), desk_(desk) {
    setObjectName("together");
    setAccessibleName(in_words("on-drawing.all-signs-of-the"));
}

void Together::refresh() {
    lay_out();
    update();
}

void Together::resizeEvent(QResizeEvent*) { lay_out(); }

Callout& Together::callout(const QString& id, const QString& does, const Measure& value, const QString& prefix) {
    Callout*& box = callouts_[id];
    if (box == nullptr) box = new Callout(desk_, id, does, this);
    box->show_value(value, prefix);
    used_.push_back(id);
    return *box;
}

void Together::lay_out() {
    shown_.clear();
    texts_.clear();
    lines_.clear();
    used_.clear();
    post_ = {};
    if (desk_.job().post && desk_.plan().post) {
        lay_out_post();
    } else {
        lay_out_side_by_side();
    }
    for (auto& [id, box] : callouts_) {
        if (std::find(used_.begin(), used_.end(), id) == used_.end() && !box->hasFocus()) box->hide();
    }
    updateGeometry();
}

// Rows of signs, each row as high as its tallest; the scale is the largest at which all of them can be seen.
void Together::lay_out_side_by_side() {
    std::vector<const ColourPlan*> plans;
    for (const ColourPlan& f : desk_.plan().colours) {
        if (f.first && place_of(desk_.job(), f.face->id) == f.face->at && !f.face->blank->face.empty())
            plans.push_back(&f);
    }
    if (plans.empty()) return;
    const double label = Theme::px(24);
    const double gap = 20;
    const double top = Theme::px(72);
    const auto try_scale = [&](double scale, bool place) {
        double x = side, y = top, row = 0;
        for (const ColourPlan* f : plans) {
            const Box whole = f->face->blank->built.whole;
            const double w = static_cast<double>(whole.width()) * scale;
            const double h = static_cast<double>(whole.height()) * scale;
            if (x > side && x + w > width() - side) {
                x = side;
                y += row + label + gap;
                row = 0;
            }
            if (place) {
                FaceView view;
                view.face = f->face->blank->face;
                view.scale = scale;
                view.origin = QPointF(x + static_cast<double>(f->face->blank->face.low.x - whole.low.x) * scale,
                                      y + static_cast<double>(whole.high.y - f->face->blank->face.high.y) * scale);
                shown_.push_back({f, view});
                const Sign& sign = desk_.job().signs[f->face->at.sign];
                texts_.push_back({QRectF(x, y + h + 2, std::max(w, 120.0), label),
                                  QString::fromStdString(label_of(sign)) +
                                      (f->face->at.face > 0 ? in_words("word.back") : QString()),
                                  false, Qt::AlignLeft | Qt::AlignVCenter});
            }
            x += std::max(w, 124.0) + gap;
            row = std::max(row, h);
        }
        return y + row + label + gap;
    };
    double low = 1e-6, high = 0.0004;
    for (int i = 0; i < 40; ++i) {
        const double middle = (low + high) / 2;
        double widest = 0;
        for (const ColourPlan* f : plans) widest = std::max(widest, static_cast<double>(f->face->blank->face.width()));
        const bool fits = try_scale(middle, false) <= std::max(300, height()) && widest * middle <= width() - 2 * side;
        (fits ? low : high) = middle;
    }
    needed_height_ = static_cast<int>(try_scale(low, true));
}

void Together::lay_out_post() {
    const Post& post = *desk_.job().post;
    const PostPlan& plan = *desk_.plan().post;
    const double top = Theme::px(84);
    const double units = static_cast<double>(to_grid(post.height.value + post.buried.value));
    const double room = std::max(320.0, height() - top - Theme::px(28));
    const double scale = units > 0 ? room / units : 1e-5;
    const auto y_at = [&](Length from_top) { return top + static_cast<double>(to_grid(from_top)) * scale; };
    const double wide = static_cast<double>(to_grid(post.width.value)) * scale;
    const double middle = width() * 0.42;
    post_ = QRectF(middle - wide / 2, top, wide, y_at(plan.sawn) - top);
    ground_ = y_at(post.height.value);
    double left = middle, right = middle;
    for (std::size_t i = 0; i < plan.arms.size(); ++i) {
        const ArmPlan& arm = plan.arms[i];
        const auto& signs = desk_.job().signs;
        const auto at = std::find_if(signs.begin(), signs.end(), [&](const Sign& s) { return s.id == arm.sign; });
        if (at == signs.end()) continue;
        const ColourPlan* f = desk_.plan().of(at->faces.front().id);
        if (f == nullptr || f->face->blank->face.empty()) continue;
        FaceView view;
        view.face = f->face->blank->face;
        view.scale = scale;
        const double w = static_cast<double>(view.face.width()) * scale;
        // An arrow stands out to the side that it points to; anything else is centred on the post.
        const bool arrow = at->blank.kind == Kind::Arrow;
        const double x = !arrow                 ? middle - w / 2
                         : at->blank.head.right ? middle - wide / 2 - w * 0.06
                                                : middle + wide / 2 + w * 0.06 - w;
        view.origin = QPointF(x, y_at(arm.from_top));
        left = std::min(left, x);
        right = std::max(right, x + w);
        shown_.push_back({f, view});
    }
    // Marks in a column at the right, gaps in one at the left.
    const double mark_x = std::min(width() - Theme::px(190) * 1.0, std::max(right, middle + wide) + Theme::px(24));
    const double gap_x = std::max(8.0, std::min(left, middle - wide) - Theme::px(110));
    double last_gap = 0;
    for (std::size_t i = 0; i < plan.arms.size(); ++i) {
        const ArmPlan& arm = plan.arms[i];
        const double y = y_at(arm.from_top);
        lines_.emplace_back(middle + wide / 2, y, mark_x - 4, y);
        texts_.push_back(
            {QRectF(mark_x, y - Theme::px(13), Theme::px(186), Theme::px(26)),
             in_words("on-drawing.mark-at", {{"from_top", shown(skarvel::show(arm.from_top, desk_.shop().display))}}),
             true, Qt::AlignLeft | Qt::AlignVCenter});
        const auto which =
            std::find_if(post.arms.begin(), post.arms.end(), [&](const PostArm& a) { return a.sign == arm.sign; });
        if (which == post.arms.end()) continue;
        const auto index = static_cast<std::size_t>(which - post.arms.begin());
        Callout& box = callout("gap-" + QString::number(index), in_words("on-drawing.changes-the-gap-above"),
                               which->gap, in_words("on-drawing.gap"));
        box.decide = [this, index](const Measure& m) {
            Job job = desk_.job();
            if (job.post && index < job.post->arms.size()) job.post->arms[index].gap = m;
            desk_.apply(std::move(job));
        };
        const double gap_top = y - static_cast<double>(to_grid(which->gap.value)) * scale;
        const double at = std::max((gap_top + y) / 2 - box.height() / 2.0, last_gap);
        last_gap = at + box.height() + 4;
        if (!box.hasFocus()) box.move(static_cast<int>(gap_x), static_cast<int>(at));
        box.show();
        lines_.emplace_back(gap_x + box.width() + 4, (gap_top + y) / 2, middle - wide / 2, (gap_top + y) / 2);
    }
    Callout& height_box = callout("post-height", in_words("on-drawing.changes-the-height-of-the-post"), post.height,
                                  in_words("on-drawing.above-ground"));
    height_box.decide = [this](const Measure& m) {
        Job job = desk_.job();
        if (job.post) job.post->height = m;
        desk_.apply(std::move(job));
    };
    if (!height_box.hasFocus())
        height_box.move(static_cast<int>(mark_x), static_cast<int>(ground_) - height_box.height() - 6);
    height_box.show();
    texts_.push_back(
        {QRectF(mark_x, ground_ + 6, Theme::px(220), Theme::px(24)),
         in_words("on-drawing.saw-the-post-to", {{"length", shown(skarvel::show(plan.sawn, desk_.shop().display))}}),
         false, Qt::AlignLeft | Qt::AlignVCenter});
    needed_height_ = static_cast<int>(top + room + Theme::px(28));
}

void Together::mousePressEvent(QMouseEvent* event) {
    for (const Shown& s : shown_) {
        if (!s.view.rect(s.view.face).contains(event->position())) continue;
        if (const auto at = place_of(desk_.job(), s.plan->face->id)) return desk_.select(at->sign, at->face);
    }
}

void Together::paintEvent(QPaintEvent*) {
    const Tokens& t = Theme::tokens();
    QPainter p(this);
    p.setRenderHint(QPainter::Antialiasing);
    p.fillRect(rect(), t.sheet);
    paint_heading(
        p, width(),
        post_.isEmpty() ? in_words("on-drawing.all-signs-of-the-job") : in_words("on-drawing.the-post-with-the"),
        in_words("on-drawing.click-a-sign-to"));
    if (!post_.isEmpty()) {
        p.fillRect(post_, QColor("#b79a72"));
        p.setPen(QPen(t.graphite, 1));
        p.drawRect(post_);
        QRectF below(post_.left() - 60, ground_, post_.width() + 120, post_.bottom() - ground_);
        if (below.height() > 1) {
            p.save();
            p.setClipRect(below.united(post_));
            QColor earth = t.line;
            earth.setAlphaF(0.6F);
            p.fillRect(below, earth);
            hatch(p, below, t.pencil);
            p.restore();
        }
        p.setPen(QPen(t.graphite, 2));
        p.drawLine(QPointF(side, ground_), QPointF(width() - side, ground_));
    }
    p.setPen(QPen(t.graphite, 1));
    for (const QLineF& line : lines_) p.drawLine(line);
    for (const Shown& s : shown_) {
        const auto at = place_of(desk_.job(), s.plan->face->id);
        if (!at) continue;
        const Sign& sign = desk_.job().signs[at->sign];
        const FacePainter painter(sign, sign.faces[at->face], *s.plan, s.view, &desk_.plan());
        painter.board(p, false);
        painter.all_ink(p);
    }
    for (const Text& text : texts_) {
        p.setPen(t.graphite);
        p.setFont(text.strong ? Theme::font(18, QFont::Medium) : Theme::font(15));
        p.drawText(text.where, static_cast<int>(text.align),
                   QFontMetrics(p.font()).elidedText(text.words, Qt::ElideRight, static_cast<int>(text.where.width())));
    }
}

}  // namespace skarvel
