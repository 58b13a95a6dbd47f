#include "drawing/drawing.h"
#include "picture/step_picture.h"

#include <QPainter>
#include <cmath>
#include <limits>
#include <numeric>

#include "drawing/scale.h"
#include "files/print_page.h"
#include "job/naming.h"
#include "sheets/sheets.h"
#include "theme/theme.h"
#include "theme/words.h"

namespace skarvel {
namespace {

// How much of what is kept clear would be hidden, square pixels.
double hidden(const QRectF& by, const std::vector<QRectF>& clear) {
    return std::accumulate(clear.begin(), clear.end(), 0.0, [&](double all, const QRectF& r) {
        const QRectF both = r.intersected(by);
        return all + (both.isEmpty() ? 0 : both.width() * both.height());
    });
}

}  // namespace

void Drawing::lay_out_loads() {
    const LoadsPlan& plan = *face()->cut.loads;
    const double along = static_cast<double>(to_grid(shown_along())) * view_.scale;
    const double across = static_cast<double>(to_grid(face()->cut.bed.usable.across)) * view_.scale;
    const double head = Theme::px(30);
    const bool rests = std::any_of(plan.loads.begin(), plan.loads.end(),
                                   [](const Load& l) { return l.rest.has_value() || !l.scraps.empty(); });
    const double foot = Theme::px(rests ? 50 : 28);
    double x = paper_side;
    double y = board_area_.bottom() + Theme::px(44);
    if (loads_beside_) {
        x = board_area_.right() + beside_board;
        y = board_area_.top() - Theme::px(26);
    }
    const double left = x;
    for (std::size_t i = 0; i < plan.loads.size(); ++i) {
        // Its words need room as well.
        const double least = std::max(along, static_cast<double>(Theme::px(load_words)) * 0.7);
        if (x > left && x + least > width() - paper_side + 1) {
            x = left;
            y += head + across + foot;
        }
        loads_.push_back({i, QRectF(x, y + head, along, across)});
        x += std::max(along, static_cast<double>(Theme::px(load_words))) + paper_side;
    }
    if (plan.sections.empty()) return;
    // Masks of another sign lie on no load here.
    double below = plan.loads.empty() ? y - Theme::px(30) : y + head + across + foot;
    if (loads_beside_) below = std::max(below, board_area_.bottom());
    table_ = QRectF(paper_side, below + Theme::px(16), width() - 2 * paper_side,
                    Theme::px(54) + static_cast<double>(lays_of(plan.sections).size()) * Theme::px(28));
    needed_height_ = static_cast<int>(table_.bottom() + 12);
}

void Drawing::paint_section_numbers(QPainter& p, const std::vector<QRectF>& said) {
    const LoadsPlan& plan = *face()->cut.loads;
    // On an edge of the film where it hides no ink, from the usual place outwards. Where one of them finds no such
    // place, all that can stand beside the blank do, so that they are found in one row; else where it hides least.
    // What is said of seams, and numbers that stand already, are kept clear like ink.
    std::vector<QRectF> ink;
    for (const QRectF& words : said) ink.push_back(words.adjusted(-4, -4, 4, 4));
    for (const Piece& piece : *face()->cut.pieces) ink.push_back(view_.rect(piece.shape.bounds()));
    const double reach = Theme::px(12);
    const QRectF blank = view_.rect(face()->face->blank->face);
    const auto on_edge = [&](const QRectF& film) {
        std::vector<QPointF> places;
        for (const bool far : {false, true}) {
            for (const double share : {0.5, 0.35, 0.65, 0.2, 0.8, 0.08, 0.92}) {
                const QPointF along(film.left() + share * film.width(), far ? film.bottom() : film.top());
                const QPointF up(far ? film.right() : film.left(), film.top() + share * film.height());
                places.push_back(view_.lengthwise() ? along : up);
            }
        }
        return places;
    };
    const auto beside_blank = [&](const QRectF& film) {
        std::vector<QPointF> places;
        for (const double share : {0.5, 0.2, 0.8, 0.35, 0.65}) {
            const double x = film.left() + share * film.width();
            const double y = film.top() + share * film.height();
            if (film.bottom() >= blank.bottom() - reach) places.emplace_back(x, blank.bottom() + reach);
            if (film.left() <= blank.left() + reach) places.emplace_back(blank.left() - reach, y);
            if (film.right() >= blank.right() - reach) places.emplace_back(blank.right() + reach, y);
        }
        // Above it stands the ruler: only where there is nothing else.
        if (film.top() <= blank.top() + reach) places.emplace_back(film.center().x(), blank.top() - reach);
        return places;
    };
    const auto hidden_at = [&](const QPointF& q) {
        const QRectF disc(q.x() - reach, q.y() - reach, 2 * reach, 2 * reach);
        // Nothing is cut off at the sides of the drawing.
        const bool cut_off = disc.left() < Theme::px(8) || disc.right() > width() - Theme::px(8);
        return hidden(disc, ink) + (cut_off ? disc.width() * disc.width() : 0);
    };
    const std::vector<Lay> lays = lays_of(plan.sections);
    const auto film_of = [&](const Lay& lay) { return view_.rect(lay.move(plan.sections[lay.section].film.bounds())); };
    const bool all_on_edge = std::all_of(lays.begin(), lays.end(), [&](const Lay& lay) {
        const std::vector<QPointF> places = on_edge(film_of(lay));
        return std::any_of(places.begin(), places.end(), [&](const QPointF& q) { return hidden_at(q) <= 0; });
    });
    for (const Lay& lay : lays) {
        const QRectF film = film_of(lay);
        std::vector<QPointF> places = on_edge(film);
        const std::vector<QPointF> outside = beside_blank(film);
        places.insert(all_on_edge ? places.end() : places.begin(), outside.begin(), outside.end());
        const auto best = std::min_element(places.begin(), places.end(), [&](const QPointF& a, const QPointF& b) {
            return hidden_at(a) < hidden_at(b);
        });
        number_disc(p, *best, static_cast<int>(lay.section) + 1, lit_ == lay.section);
        ink.emplace_back(best->x() - reach, best->y() - reach, 2 * reach, 2 * reach);
    }
}

// What the hands do at each seam, and one try of them eight times as far off as it came out.
// Halves that are done in two ways, and where something happened.
void Drawing::paint_bench_marks(QPainter& p, const FaceView& view) {
    const Tokens& t = Theme::tokens();
    const auto at = [&](Point place) {
        return view.transform().map(QPointF(static_cast<double>(place.x), static_cast<double>(place.y)));
    };
    p.setRenderHint(QPainter::Antialiasing);
    for (const PictureMark& m : marks_of_bench(face()->face->id, desk_.job(), desk_.plan(), nullptr)) {
        QPainterPath path(at(m.from));
        if (m.shows == Shows::Split) {
            path.lineTo(at(m.to));
            cased(p, path, QPen(t.chalk, 1.5, Qt::DashLine));
            continue;
        }
        if (m.shows == Shows::Spot) {
            QPainterPath ring;
            ring.addEllipse(at(m.from), Theme::px(8), Theme::px(8));
            cased(p, ring, QPen(t.brick, 2));
        }
        const QString words = shown(desk_.say(m.says));
        p.setFont(Theme::font(12, QFont::DemiBold));
        const QSizeF size = QFontMetricsF(p.font()).size(0, words) + QSizeF(10, 4);
        const QRectF box(at(m.from) + QPointF(-size.width() / 2, m.shows == Shows::Spot ? Theme::px(11) : 0), size);
        p.setPen(QPen(m.shows == Shows::Spot ? t.brick : t.chalk, 1));
        p.setBrush(t.sheet);
        p.drawRoundedRect(box, 3, 3);
        p.setPen(t.graphite);
        p.drawText(box, Qt::AlignCenter, words);
    }
}

void Drawing::paint_evidence(QPainter& p, std::vector<QRectF>& said) {
    const auto& evidence = desk_.evidence();
    if (!evidence) return;
    const Tokens& t = Theme::tokens();
    const ColourId& of = face()->id;
    const LoadsPlan& plan = *face()->cut.loads;
    p.setRenderHint(QPainter::Antialiasing);
    constexpr double enlarged = 8;
    const double dots_per_mm = view_.scale / grid_to_mm(1);
    for (const LaidByHand& l : evidence->one_try) {
        if (l.of != of || l.section >= plan.sections.size()) continue;
        const QPainterPath film = view_.transform().map(path_of(plan.sections[l.section].film));
        const QPointF zero = view_.transform().map(QPointF(0, 0));
        const QPointF unit_x = view_.transform().map(QPointF(1, 0)) - zero;
        const QPointF unit_y = view_.transform().map(QPointF(0, 1)) - zero;
        const QPointF off = (unit_x * l.dx_mm + unit_y * l.dy_mm) / view_.scale * dots_per_mm * enlarged;
        const QPointF middle = film.boundingRect().center();
        // A turn goes the other way round on a screen, whose y runs down; laying the board down keeps it.
        const double degrees = -l.turn * 180 / 3.14159265358979 * enlarged;
        const QTransform laid = QTransform::fromTranslate(-middle.x(), -middle.y()) * QTransform().rotate(degrees) *
                                QTransform::fromTranslate(middle.x() + off.x(), middle.y() + off.y());
        cased(p, laid.map(film), QPen(t.ochre, 1.5, Qt::DashLine));
    }
    for (const ColourProof& c : evidence->as_cut) {
        if (c.of != of) continue;
        p.setPen(QPen(t.brick, 1));
        p.setBrush(t.brick);
        p.drawPath(view_.transform().map(path_of(c.missing)));
        p.setBrush(Qt::NoBrush);
        p.drawPath(view_.transform().map(path_of(c.surplus)));
    }
    p.setFont(Theme::font(13, QFont::Medium));
    std::vector<QRectF> clear = said;
    for (const Piece& piece : *face()->cut.pieces) clear.push_back(view_.rect(piece.shape.bounds()));
    for (const SeamByHand& s : evidence->by_hand) {
        if (s.of != of || s.seam >= plan.seams.size()) continue;
        const bool safe = s.share_open <= 0.05;
        const QString words = safe ? in_words("on-drawing.holds")
                                   : in_words("on-drawing.opens-in-100", {{"tries", std::lround(s.share_open * 100)}});
        QRectF chip = p.fontMetrics().boundingRect(words).adjusted(-6, -3, 6, 3);
        // By the seam's flag, where it hides no ink.
        const QRectF flag = said[s.seam];
        const QPointF aside((flag.width() + chip.width()) / 2 + 2, 0), away(0, (flag.height() + chip.height()) / 2 + 2);
        double least = -1;
        for (const QPointF& way : {away, aside, -aside, -away}) {
            QRectF here = chip;
            here.moveCenter(flag.center() + way);
            const double hides = hidden(here, clear);
            if (least >= 0 && hides >= least) continue;
            least = hides;
            chip.moveCenter(here.center());
        }
        said.push_back(chip);
        clear.push_back(chip);
        p.setPen(QPen(safe ? t.moss : t.ochre, 1.5));
        p.setBrush(t.sheet);
        p.drawRoundedRect(chip, 3, 3);
        p.setPen(safe ? t.moss : t.ochre);
        p.drawText(chip, Qt::AlignCenter, words);
    }
}

void Drawing::paint_loads(QPainter& p) {
    const Tokens& t = Theme::tokens();
    const LoadsPlan& plan = *face()->cut.loads;
    const Display& display = desk_.shop().display;
    p.setRenderHint(QPainter::Antialiasing);
    for (const LoadView& lv : loads_) {
        if (lv.load >= plan.loads.size()) continue;  // laid out for a plan that is gone
        const Load& load = plan.loads[lv.load];
        const QRectF mat = lv.mat;
        p.setPen(t.graphite);
        p.setFont(Theme::font(15, QFont::DemiBold));
        const Mat& bed = face()->cut.bed;
        const QString name = in_words(
            bed.roll || bed.print ? "on-drawing.load" : "on-drawing.load-mat",
            {{"number", lv.load + 1}, {"bed", bed.name}, {"cut", load.cut ? in_words("on-drawing.cut") : QString()}});
        const double wide =
            std::min(std::max(mat.width(), static_cast<double>(Theme::px(load_words))), width() - mat.left() - 4);
        p.drawText(QRectF(mat.left(), mat.top() - Theme::px(28), wide, Theme::px(22)), Qt::AlignLeft | Qt::AlignVCenter,
                   p.fontMetrics().elidedText(name, Qt::ElideRight, static_cast<int>(wide)));
        QColor cloth = t.moss;
        cloth.setAlphaF(0.10F);
        p.fillRect(mat, cloth);
        p.setPen(QPen(t.line, 0.6));
        const double inch = units_per_inch * view_.scale;
        for (double x = mat.left() + inch; x < mat.right(); x += inch)
            p.drawLine(QPointF(x, mat.top()), QPointF(x, mat.bottom()));
        for (double y = mat.top() + inch; y < mat.bottom(); y += inch)
            p.drawLine(QPointF(mat.left(), y), QPointF(mat.right(), y));
        p.setPen(QPen(t.moss, 1, Qt::DashLine));
        p.setBrush(Qt::NoBrush);
        p.drawRect(mat);
        // The mat lies as the board does, turned a quarter: what goes in last is on the left.
        const QTransform lie(0, -view_.scale, -view_.scale, 0, mat.right(), mat.bottom());
        const std::vector<OnMat> lying =
            is_printed(face()->cut.making) ? on_mat(load, plan.sections, {}) : std::vector<OnMat>{};
        for (const Placement& placement : load.placements) {
            const LaidSection laid = lay_on_mat(plan.sections[placement.section], placement);
            const bool lit = lit_ == placement.section;
            const QPainterPath film = lie.map(path_of(laid.film));
            p.setPen(QPen(lit ? t.chalk : t.graphite, lit ? 2 : 1));
            p.setBrush(section_tint(placement.section));
            p.drawPath(film);
            p.setPen(QPen(t.graphite, 0.8));
            p.setBrush(face()->cut.making.way == Way::PaintThrough
                           ? t.sheet
                           : QColor(QString::fromStdString(
                                 sign().faces[desk_.face_at()].colours.at(face()->colour).paint.colour)));
            p.drawPath(lie.map(path_of(laid.cut)));
            if (is_printed(face()->cut.making)) {
                const auto which = static_cast<std::size_t>(&placement - load.placements.data());
                p.setPen(Qt::NoPen);
                for (const PrintedPicture& picture : pictures_on(job(), this->plan(), *face(), lying[which])) {
                    const QImage image = image_of(picture.bytes);
                    if (image.isNull()) continue;
                    const auto corner = [&](std::size_t i) {
                        return lie.map(QPointF(picture.corners[i].first, picture.corners[i].second));
                    };
                    const QPointF right = (corner(1) - corner(0)) / image.width();
                    const QPointF down = (corner(2) - corner(0)) / image.height();
                    p.save();
                    p.setClipPath(lie.map(path_of(picture.cut)), Qt::IntersectClip);
                    p.fillPath(lie.map(path_of(picture.cut)), Qt::white);
                    p.setRenderHint(QPainter::SmoothPixmapTransform);
                    p.setTransform(QTransform(right.x(), right.y(), down.x(), down.y(), corner(0).x(), corner(0).y()),
                                   true);
                    p.drawImage(0, 0, image);
                    p.restore();
                }
                for (const Printed& printed : printed_on(job(), this->plan(), *face(), lying[which])) {
                    const Colour* decided = find_colour(desk_.face(), printed.colour);
                    p.setBrush(QColor(QString::fromStdString(decided == nullptr ? "" : decided->paint.colour)));
                    p.drawPath(lie.map(path_of(printed.ink)));
                }
            }
            p.setPen(QPen(t.pencil, 1));
            for (const KnifeLine& line : laid.lines) {
                p.drawLine(lie.map(QPointF(static_cast<double>(line.from.x), static_cast<double>(line.from.y))),
                           lie.map(QPointF(static_cast<double>(line.to.x), static_cast<double>(line.to.y))));
            }
        }
        // What other colours and signs have on the same load.
        for (const Guest& guest : load.guests) {
            const LaidSection laid = lay_on_mat(guest.section, guest.placement);
            p.setPen(QPen(t.pencil, 1, Qt::DashLine));
            p.setBrush(Qt::NoBrush);
            const QPainterPath film = lie.map(path_of(laid.film));
            p.drawPath(film);
            p.setPen(QPen(t.pencil, 0.6));
            p.drawPath(lie.map(path_of(laid.cut)));
            const QRectF room = film.boundingRect().adjusted(4, 2, -4, -2);
            p.setFont(Theme::font(13));
            const QString letters = QString::fromStdString(guest.section.letters);
            const QString whose = QString::fromStdString(name_of_colour(job(), guest.of));
            const QString words = whose.isEmpty() || whose == letters
                                      ? letters
                                      : in_words("on-drawing.letters-whose", {{"letters", letters}, {"whose", whose}});
            const QFontMetrics m(p.font());
            const QString fitting = m.elidedText(words, Qt::ElideRight, static_cast<int>(room.width()));
            // On paper of its own: letters fill their film.
            p.fillRect(QRectF(room.left() - 2, room.top(), m.horizontalAdvance(fitting) + 4, m.height()), t.sheet);
            p.setPen(t.graphite);
            p.drawText(room, Qt::AlignLeft | Qt::AlignTop, fitting);
        }
        for (const Placement& placement : load.placements) {
            const LaidSection laid = lay_on_mat(plan.sections[placement.section], placement);
            number_disc(p, lie.mapRect(path_of(laid.film).boundingRect()).topLeft() + QPointF(4, 4),
                        static_cast<int>(placement.section) + 1, lit_ == placement.section);
        }
        for (const Box& piece : leftovers_on_bed(desk_.shop().drawer, load, plan.sections, bed)) {
            QPainterPath outline;
            outline.addRect(
                lie.mapRect(QRectF(QPointF(static_cast<double>(piece.low.x), static_cast<double>(piece.low.y)),
                                   QPointF(static_cast<double>(piece.high.x), static_cast<double>(piece.high.y)))));
            cased(p, outline, QPen(t.moss, 2));
        }
        p.setPen(t.pencil);
        p.setFont(Theme::font(13));
        p.save();
        p.translate(mat.right() + 4, mat.center().y());
        p.rotate(90);
        p.drawText(QRectF(-mat.height() / 2, -Theme::px(18), mat.height(), Theme::px(18)), Qt::AlignCenter,
                   p.fontMetrics().elidedText(in_words("on-drawing.in-first"), Qt::ElideRight,
                                              static_cast<int>(mat.height())));
        p.restore();
        p.setFont(Theme::font(15));
        p.drawText(QRectF(mat.left(), mat.bottom() + 4, wide, Theme::px(44)),
                   Qt::AlignLeft | Qt::AlignTop | Qt::TextWordWrap, load_says(load, face()->cut.bed, display));
    }
}

// Where its film comes from, and what it leaves.
QString Drawing::load_says(const Load& load, const Mat& bed, const Display& display) {
    if (!load.carried_by.empty()) return in_words("on-drawing.cut-in-one-go");
    if (!load.from.empty())
        return in_words("on-drawing.from-the-drawer", {{"from", QString::fromStdString(leftovers_of(load))}});
    QString words = in_words(bed.print ? "on-drawing.a-page-long-used" : "on-drawing.off-the-roll-used",
                             {{"length", shown(skarvel::show(load.film_length, display))},
                              {"share", static_cast<int>(std::lround(load.share * 100))}});
    if (load.rest) {
        // In millimetres rounded down, like eighths.
        const auto side = [&](Length l) {
            return display.unit == Unit::Millimetre ? QString::number(static_cast<int>(l.in_mm()))
                                                    : shown(show_number(l, display));
        };
        words += in_words("on-drawing.keep-what-is-left",
                          {{"across", side(load.rest->across)}, {"along", side(load.rest->along)}});
    }
    return words;
}

// How much of the bed's length is drawn: of a roll what the longest load takes.
Length Drawing::shown_along() const {
    if (!face()->cut.bed.roll) return face()->cut.bed.usable.along;
    Length longest = 12_in;
    for (const Load& load : face()->cut.loads->loads) longest = std::max(longest, load.film_length);
    return std::min(longest, face()->cut.bed.usable.along);
}

// Where each section goes: the distances that the placement sheet prints.
void Drawing::paint_table(QPainter& p) {
    if (table_.isEmpty()) return;
    const Tokens& t = Theme::tokens();
    const LoadsPlan& plan = *face()->cut.loads;
    const Display& display = desk_.shop().display;
    const bool upright = view_.face.height() > view_.face.width();
    const double w = table_.width();
    const std::array<double, 6> columns = {0, w * 0.30, w * 0.46, w * 0.62, w * 0.78, w * 0.90};
    const auto cell = [&](int column, double y, const QString& text, bool right) {
        const double end = column == 5 ? w : columns.at(static_cast<std::size_t>(column) + 1) - 10;
        const double begin = columns.at(static_cast<std::size_t>(column));
        p.drawText(QRectF(table_.left() + begin, y, end - begin, Theme::px(26)),
                   (right ? Qt::AlignRight : Qt::AlignLeft) | Qt::AlignVCenter,
                   QFontMetrics(p.font()).elidedText(text, Qt::ElideRight, static_cast<int>(end - begin)));
    };
    double y = table_.top();
    p.setPen(t.graphite);
    p.setFont(Theme::font(15, QFont::DemiBold));
    p.drawText(QRectF(table_.left(), y, w, Theme::px(26)), Qt::AlignLeft | Qt::AlignVCenter,
               in_words("on-drawing.where-each-section-goes"));
    y += Theme::px(24);
    p.setFont(Theme::font(13));
    p.setPen(t.pencil);
    const QStringList heads = upright ? QStringList{in_words("word.section"),        in_words("on-drawing.from-bottom"),
                                                    in_words("on-drawing.from-top"), in_words("on-drawing.from-left"),
                                                    in_words("word.load"),           in_words("word.keepers")}
                                      : QStringList{in_words("word.section"),
                                                    in_words("on-drawing.from-left"),
                                                    in_words("on-drawing.from-right"),
                                                    in_words("on-drawing.from-bottom"),
                                                    in_words("word.load"),
                                                    in_words("word.keepers")};
    for (int c = 0; c < 6; ++c) cell(c, y, heads[c], c > 0);
    y += Theme::px(26);
    for (const Lay& lay : lays_of(plan.sections)) {
        const std::size_t i = lay.section;
        const auto [low, high] = corners(plan.sections[i], view_.face, lay.move);
        p.setPen(QPen(t.line, 1));
        p.drawLine(QPointF(table_.left(), y), QPointF(table_.right(), y));
        if (lit_ == i) {
            QColor wash = t.chalk;
            wash.setAlphaF(0.1F);
            p.fillRect(QRectF(table_.left(), y + 1, w, Theme::px(27)), wash);
        }
        p.setPen(t.graphite);
        p.setFont(Theme::font(15));
        QString load = "–";
        for (std::size_t l = 0; l < plan.loads.size(); ++l) {
            for (const Placement& placement : plan.loads[l].placements) {
                if (placement.section == i)
                    load = QString::number(l + 1) + (plan.loads[l].cut ? in_words("on-drawing.and-cut") : QString());
            }
        }
        QString name = QString("%1   %2").arg(i + 1).arg(QString::fromStdString(plan.sections[i].letters));
        if (plan.passes > 1) name += in_words("on-drawing.pass", {{"pass", lay.pass}});
        if (const std::string how = desk_.say(turned(lay.move)); !how.empty())
            name += ", " + QString::fromStdString(how);
        cell(0, y, name, false);
        cell(1, y, shown(show_number(upright ? low.from_bottom : low.from_left, display)), true);
        cell(2, y, shown(show_number(upright ? high.from_top : high.from_right, display)), true);
        cell(3, y, shown(show_number(upright ? low.from_left : low.from_bottom, display)), true);
        cell(4, y, load, true);
        cell(5, y, QString::number(plan.sections[i].keepers.size()), true);
        y += Theme::px(28);
    }
}

std::optional<std::size_t> Drawing::section_at(QPointF where) const {
    if (station_ != Station::Sections || face() == nullptr) return std::nullopt;
    const LoadsPlan& plan = *face()->cut.loads;
    for (std::size_t i = 0; i < plan.sections.size(); ++i) {
        if (view_.rect(plan.sections[i].film.bounds()).contains(where)) return i;
    }
    for (const LoadView& lv : loads_) {
        const QTransform lie(0, -view_.scale, -view_.scale, 0, lv.mat.right(), lv.mat.bottom());
        for (const Placement& placement : plan.loads[lv.load].placements) {
            const LaidSection laid = lay_on_mat(plan.sections[placement.section], placement);
            if (lie.mapRect(path_of(laid.film).boundingRect()).contains(where)) return placement.section;
        }
    }
    return std::nullopt;
}

}  // namespace skarvel
