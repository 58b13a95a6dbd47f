#include "drawing/face_painter.h"

#include <QCache>
#include <QImage>

#include <algorithm>
#include <array>
#include <map>
#include <vector>

#include "drawing/materials.h"
#include "text/numbering.h"
#include "theme/theme.h"
#include "window/ribbon.h"

namespace skarvel {

QImage image_of(const std::shared_ptr<const std::string>& bytes) {
    // The bytes of a job's pictures are held once for all its states.
    static QCache<const std::string*, std::pair<std::weak_ptr<const std::string>, QImage>> known(8);
    const auto* found = known.object(bytes.get());
    if (found != nullptr && found->first.lock() == bytes) return found->second;
    QImage image;
    image.loadFromData(QByteArray::fromRawData(bytes->data(), static_cast<qsizetype>(bytes->size())));
    known.insert(bytes.get(), new std::pair(std::weak_ptr(bytes), image));
    return image;
}

FaceView FaceView::within(const QRectF& picture, const Box& face, const Box& whole) {
    FaceView view;
    view.face = face;
    view.laid_down = whole.height() > 2 * whole.width() && picture.width() > picture.height();
    const auto w = static_cast<double>(view.laid_down ? whole.height() : whole.width());
    const auto h = static_cast<double>(view.laid_down ? whole.width() : whole.height());
    view.scale = std::min(picture.width() / w, picture.height() / h);
    const QSizeF size = view.size();
    view.origin = picture.center() - QPointF(size.width() / 2, size.height() / 2);
    return view;
}

QTransform FaceView::transform() const {
    const auto h = static_cast<double>(face.height());
    const auto w = static_cast<double>(face.width());
    // The top goes to the left: up becomes left, right becomes up.
    if (laid_down) return {0, -scale, -scale, 0, origin.x() + h * scale, origin.y() + w * scale};
    return {scale, 0, 0, -scale, origin.x(), origin.y() + h * scale};
}

QRectF FaceView::rect(const Box& box) const { return QRectF(at(box.low), at(box.high)).normalized(); }

QSizeF FaceView::size() const {
    const QSizeF upright(static_cast<double>(face.width()) * scale, static_cast<double>(face.height()) * scale);
    return laid_down ? upright.transposed() : upright;
}

QPainterPath path_of(const Region& region) {
    QPainterPath path;
    path.setFillRule(Qt::WindingFill);
    for (const Ring& ring : region.rings()) {
        QPolygonF polygon;
        polygon.reserve(static_cast<int>(ring.size()) + 1);
        for (const Point& p : ring) polygon << QPointF(static_cast<double>(p.x), static_cast<double>(p.y));
        path.addPolygon(polygon);
        path.closeSubpath();
    }
    return path;
}

void cased(QPainter& painter, const QPainterPath& path, const QPen& pen) {
    painter.setBrush(Qt::NoBrush);
    QPen casing(Theme::tokens().sheet, pen.widthF() + 3);
    painter.setPen(casing);
    painter.drawPath(path);
    painter.setPen(pen);
    painter.drawPath(path);
}

QColor section_tint(std::size_t section) {
    static const std::array day = {"#d8c9a8", "#b9c8bb", "#d2b9b0", "#b6c6cf", "#c9c3d2", "#cfd0ac"};
    static const std::array night = {"#6b5f45", "#4d5f52", "#6a5048", "#47596a", "#5c566a", "#5d5e3f"};
    return QColor((Theme::night() ? night : day).at(section % day.size()));
}

void number_disc(QPainter& painter, QPointF centre, int number, bool strong) {
    const Tokens& t = Theme::tokens();
    painter.save();
    painter.setRenderHint(QPainter::Antialiasing);
    const double r = Theme::px(11);
    painter.setPen(QPen(strong ? t.chalk : t.graphite, 1.5));
    painter.setBrush(strong ? t.chalk : t.sheet);
    painter.drawEllipse(centre, r, r);
    painter.setPen(strong ? t.sheet : t.graphite);
    painter.setFont(Theme::font(13, QFont::DemiBold));
    painter.drawText(QRectF(centre.x() - r, centre.y() - r, 2 * r, 2 * r), Qt::AlignCenter, QString::number(number));
    painter.restore();
}

namespace {

bool has_grain(const Blank& blank) {
    return blank.grain != Grain::None && blank.kind != Kind::Canvas && is_wood(blank.material);
}

// As it is decided, unless another coat goes through its mask.
QColor seen_as(const ColourPlan& lane, const Colour& decided) {
    const bool coated = lane.method && !lane.method->through.empty();
    return {QString::fromStdString(coated ? lane.method->ink : decided.paint.colour)};
}

}  // namespace

void FacePainter::board(QPainter& p, bool bare) const {
    const Tokens& t = Theme::tokens();
    const Blank& blank = sign_.blank;
    p.setRenderHint(QPainter::Antialiasing);
    const Built& built = plan_.face->blank->built;
    if (blank.kind == Kind::Field && blank.moulding) mouldings(p, view_.rect(built.whole));
    if (!built.backing.where.empty()) {
        const Look wood = look_of(built.backing.material);
        const QRectF backing = view_.rect(built.backing.where.bounds());
        p.fillRect(backing, wood.base.darker(108));
        paint_grain(p, backing, wood.line);
        p.setPen(QPen(t.graphite, 1));
        p.setBrush(Qt::NoBrush);
        p.drawRect(backing);
    }
    const QPainterPath shape = view_.transform().map(path_of(plan_.face->blank->outline));
    const QRectF where = shape.boundingRect();
    const Look look = look_of(blank.kind == Kind::Canvas ? "canvas" : blank.material);
    // Its thickness shows as a lip at the lower right, as far as a picture from the front can show it.
    if (blank.kind != Kind::Field) {
        const double lip =
            std::clamp(static_cast<double>(to_grid(plan_.face->blank->thickness)) * view_.scale * 0.4, 1.0, 3.0);
        p.fillPath(shape.translated(lip, lip), look.base.darker(150));
    }
    p.fillPath(shape, look.base);
    p.save();
    p.setClipPath(shape, Qt::IntersectClip);
    QColor line = look.line;
    line.setAlphaF(0.75F);
    if (blank.kind == Kind::Canvas) {
        paint_weave(p, where, line);
    } else if (blank.material == "acrylic") {
        paint_gleams(p, where, line);
    } else if (has_grain(blank)) {
        paint_grain(p, where, line, blank.grain == Grain::Across);
    }
    if (!bare) coats(p, shape);
    for (std::size_t i = 0; i < blank.fields.size() && i < plan_.face->blank->fields.size(); ++i) {
        const QColor colour(QString::fromStdString(blank.fields[i].colour));
        p.fillPath(view_.transform().map(path_of(plan_.face->blank->fields[i].region)),
                   colour.isValid() ? colour : t.brick);
        for (const ShownLayer& layer : plan_.method->layers) {
            QColor coat(QString::fromStdString(layer.colour));
            if (layer.on != On::Field || layer.field != static_cast<int>(i) + 1 || !coat.isValid()) continue;
            constexpr float thin = 0.28F;
            if (layer.kind == ShownKind::Glaze || layer.kind == ShownKind::Clear || layer.kind == ShownKind::ClearUnder)
                coat.setAlphaF(thin);
            p.fillPath(view_.transform().map(path_of(plan_.face->blank->fields[i].region)), coat);
        }
    }
    if (blank.kind == Kind::Canvas && blank.bars) {
        const double bar = static_cast<double>(to_grid(1.5_in)) * view_.scale;
        p.setPen(QPen(t.pencil, 1, Qt::DashLine));
        p.setBrush(Qt::NoBrush);
        p.drawRect(where.adjusted(bar, bar, -bar, -bar));
    }
    p.restore();
    p.setPen(QPen(t.graphite, 1));
    p.setBrush(Qt::NoBrush);
    p.drawPath(shape);
    frame(p);
}

// What lies on the face beside its lettering, from the bare surface up: grain through stain and washes, streaks of a
// dry brush, bare edges where it is rubbed through.
void FacePainter::coats(QPainter& p, const QPainterPath& shape) const {
    constexpr double opaque = 1, stain = 0.62, wash = 0.72, glaze = 0.28;
    const QRectF where = shape.boundingRect();
    const BuildUp& build = *plan_.method;
    const bool washed = build.ground.kind == "wash";
    const QColor bare = look_of(sign_.blank.kind == Kind::Canvas ? "canvas" : sign_.blank.material).base;
    for (const ShownLayer& layer : build.layers) {
        // What goes on one field is seen with it, what goes through a mask with the lettering.
        QColor colour(QString::fromStdString(layer.colour));
        if (layer.on != On::Face || !colour.isValid()) continue;
        const bool ground = layer.kind == ShownKind::Ground;
        switch (layer.kind) {
            case ShownKind::Primer:
            case ShownKind::Ground:
            case ShownKind::Stain:
            case ShownKind::Glaze: {
                const double covers = layer.kind == ShownKind::Stain                            ? stain
                                      : layer.kind == ShownKind::Glaze                          ? glaze
                                      : ground && washed && layer.colour == build.ground_colour ? wash
                                                                                                : opaque;
                QColor coat = colour;
                coat.setAlphaF(static_cast<float>(covers));
                p.fillPath(shape, coat);
                if (covers < opaque || !has_grain(sign_.blank)) break;
                // Under paint the grain is felt rather than seen.
                QColor line = colour.lighter(118);
                line.setAlphaF(0.35F);
                paint_grain(p, where, line, sign_.blank.grain == Grain::Across);
                break;
            }
            case ShownKind::DryBrush: {
                p.setPen(QPen(colour, 1.2));
                for (int i = 0; i * 4.0 < where.height(); ++i) {
                    for (double x = where.left() + (i * 47) % 60; x < where.right(); x += 90 + (i * 31) % 50) {
                        const double y = where.top() + i * 4.0 + (i * 13) % 3;
                        p.drawLine(QPointF(x, y), QPointF(x + 34 + (i * 17) % 26, y));
                    }
                }
                break;
            }
            default:
                break;
        }
    }
    const bool rubbed = std::any_of(build.layers.begin(), build.layers.end(),
                                    [](const ShownLayer& l) { return l.kind == ShownKind::Distressed; });
    if (!rubbed) return;
    QPen worn(bare, 5, Qt::CustomDashLine, Qt::RoundCap);
    worn.setDashPattern({1.2, 3.1, 0.6, 2.2, 2.4, 4.5});
    p.setPen(worn);
    p.setBrush(Qt::NoBrush);
    p.drawPath(shape);
}

void FacePainter::guides(QPainter& p) const {
    p.setPen(QPen(Theme::tokens().pencil, 1, Qt::DashDotLine));
    for (const Guide& guide : sign_.blank.guides) {
        const std::int64_t at = to_grid(guide.where.value);
        const bool level = guide.along == Axis::X;
        p.drawLine(view_.at(level ? Point{view_.face.low.x, at} : Point{at, view_.face.low.y}),
                   view_.at(level ? Point{view_.face.high.x, at} : Point{at, view_.face.high.y}));
    }
}

void FacePainter::mouldings(QPainter& p, const QRectF& outer) const {
    const Tokens& t = Theme::tokens();
    const QRectF inner = view_.rect(view_.face);
    p.fillRect(outer, t.paper);
    p.setBrush(Qt::NoBrush);
    for (const double share : {0.0, 0.35, 0.65}) {
        QRectF line = outer;
        line.adjust((inner.left() - outer.left()) * share, (inner.top() - outer.top()) * share,
                    (inner.right() - outer.right()) * share, (inner.bottom() - outer.bottom()) * share);
        p.setPen(QPen(share == 0.0 ? t.graphite : t.pencil, 1));
        p.drawRect(line);
    }
    p.setPen(QPen(t.pencil, 1));
    p.drawLine(outer.topLeft(), inner.topLeft());
    p.drawLine(outer.topRight(), inner.topRight());
    p.drawLine(outer.bottomLeft(), inner.bottomLeft());
    p.drawLine(outer.bottomRight(), inner.bottomRight());
}

// The frame where it will be, with its joints.
void FacePainter::frame(QPainter& p) const {
    const Built& built = plan_.face->blank->built;
    if (built.frame.where.empty() || sign_.blank.frame.kind == FrameKind::None) return;
    const Look wood = look_of(built.frame.material);
    const QPen edge(QColor("#4a3a22"), 1);
    const QPainterPath shape = view_.transform().map(path_of(built.frame.where));
    const QRectF outer = shape.boundingRect();
    const double seen = static_cast<double>(to_grid(sign_.blank.frame.seen.value)) * view_.scale;
    p.fillPath(shape, wood.base.darker(112));
    if (!built.joints.empty() || sign_.blank.frame.kind == FrameKind::Battens) {
        p.save();
        p.setClipPath(shape, Qt::IntersectClip);
        const QRectF left(outer.left(), outer.top() + seen, seen, outer.height() - 2 * seen);
        const QRectF top(outer.left() + seen, outer.top(), outer.width() - 2 * seen, seen);
        for (const QRectF& r :
             {left, left.translated(outer.width() - seen, 0), top, top.translated(0, outer.height() - seen)})
            paint_grain(p, r, wood.line.darker(108));
        p.restore();
    }
    p.setPen(edge);
    p.setBrush(Qt::NoBrush);
    p.drawPath(shape);
    for (const auto& [from, to] : built.joints) p.drawLine(view_.at(from), view_.at(to));
}

void FacePainter::clear_zones(QPainter& p, std::optional<std::size_t> chosen, bool names) const {
    const Tokens& t = Theme::tokens();
    p.setRenderHint(QPainter::Antialiasing);
    for (std::size_t i = 0; i < plan_.face->blank->zones.size() && i < sign_.blank.clear.size(); ++i) {
        const ClearZone& zone = sign_.blank.clear[i];
        const Region shown = intersect(plan_.face->blank->zones[i], plan_.face->blank->outline);
        if (shown.empty()) continue;
        const QPainterPath path = view_.transform().map(path_of(shown));
        QColor wash = t.sheet;
        wash.setAlphaF(0.55F);
        p.fillPath(path, wash);
        p.save();
        p.setClipPath(path, Qt::IntersectClip);
        hatch(p, path.boundingRect(), t.pencil);
        p.restore();
        if (chosen == i) {
            cased(p, path, QPen(t.chalk, 2));
        } else {
            p.setPen(QPen(t.pencil, 1));
            p.setBrush(Qt::NoBrush);
            p.drawPath(path);
        }
        if (!names) continue;
        p.setFont(Theme::font(13, QFont::Medium));
        const QString name = QString::fromStdString(zone.name);
        const QFontMetrics m(p.font());
        for (const Region& part : islands(shown)) {
            const QRectF where = view_.rect(part.bounds());
            if (m.horizontalAdvance(name) + 10 >= where.width() || m.height() + 4 >= where.height()) continue;
            const QRectF tag(where.center().x() - m.horizontalAdvance(name) / 2.0 - 5,
                             where.center().y() - m.height() / 2.0 - 1, m.horizontalAdvance(name) + 10, m.height() + 2);
            p.fillRect(tag, t.sheet);
            p.setPen(t.graphite);
            p.drawText(tag, Qt::AlignCenter, name);
        }
    }
}

void FacePainter::usable(QPainter& p) const {
    if (plan_.face->blank->usable.empty()) return;
    QPainterPath path;
    path.addRect(view_.rect(plan_.face->blank->usable));
    QPen pen(Theme::tokens().chalk, 1, Qt::DashLine);
    cased(p, path, pen);
    // Where ink may lie beyond that, in shapes that are no rectangle.
    if (plan_.face->blank->free.rings().size() > 1 || plan_.face->blank->free.rings().front().size() > 4) {
        p.setPen(QPen(Theme::tokens().chalk, 1, Qt::DotLine));
        p.setBrush(Qt::NoBrush);
        p.drawPath(view_.transform().map(path_of(plan_.face->blank->free)));
    }
}

void FacePainter::ink(QPainter& p, bool as_laid) const {
    p.setRenderHint(QPainter::Antialiasing);
    const QTransform transform = view_.transform();
    const QColor colour = seen_as(plan_, face_.colours[std::min(plan_.colour, face_.colours.size() - 1)]);
    p.setPen(Qt::NoPen);
    p.setBrush(colour.isValid() ? colour : QColor("#f7f4ec"));
    // Read from the front, however it is laid.
    const std::int64_t twice = plan_.face->blank->face.low.x + plan_.face->blank->face.high.x;
    const auto draw = [&](const ColourPlan& lane) {
        for (const Piece& piece : *lane.ink)
            p.drawPath(
                transform.map(path_of(lane.face->mirrored && !as_laid ? piece.shape.mirrored(twice) : piece.shape)));
    };
    draw(plan_);
    if (all_ == nullptr) return;
    for (const ColourPlan& f : all_->colours) {
        const Colour* decided = find_colour(face_, f.id);
        if (f.cut.printed_with != plan_.id || decided == nullptr) continue;
        const QColor with = seen_as(f, *decided);
        p.setBrush(with.isValid() ? with : QColor("#f7f4ec"));
        draw(f);
    }
}

void FacePainter::all_ink(QPainter& p, bool as_cut, const ThingId& moved, Point by) const {
    std::vector<const ColourPlan*> lanes;
    if (all_ != nullptr) {
        for (const ColourPlan& f : all_->colours) {
            if (f.face->id == plan_.face->id) lanes.push_back(&f);
        }
    } else {
        lanes.push_back(&plan_);
    }
    // Read through a clear blank, what is laid first lies in front.
    if (plan_.face->mirrored) std::reverse(lanes.begin(), lanes.end());
    p.setRenderHint(QPainter::Antialiasing);
    const QTransform transform = view_.transform();
    const std::int64_t twice = plan_.face->blank->face.low.x + plan_.face->blank->face.high.x;
    const bool drags = by != Point{};
    if (!as_cut) pictures(p, moved, by);
    for (const ColourPlan* lane : lanes) {
        const Colour* decided = find_colour(face_, lane->id);
        if (decided == nullptr) continue;
        const QColor colour = seen_as(*lane, *decided);
        const QColor ink = colour.isValid() ? colour : QColor("#f7f4ec");
        for (const Piece& piece : *(as_cut ? lane->cut.pieces : lane->ink)) {
            Region shape = lane->face->mirrored ? piece.shape.mirrored(twice) : piece.shape;
            if (drags && thing_of(*lane, piece) == moved) shape = shape.moved(by);
            const QPainterPath path = transform.map(path_of(shape));
            if (!as_cut && is_picture(piece)) {
                // Its colours are its own: only the line that the knife follows is shown.
                cased(p, path, QPen(Theme::tokens().pencil, 1, Qt::DashLine));
            } else if (as_cut) {
                cased(p, path, QPen(section_tint(lane->colour).darker(170), 1.2));
            } else {
                p.setPen(Qt::NoPen);
                p.setBrush(ink);
                p.drawPath(path);
            }
        }
    }
}

bool FacePainter::is_picture(const Piece& piece) const {
    const int at = piece.line - 1'000;
    if (!piece.art || at < 0 || static_cast<std::size_t>(at) >= face_.art.size()) return false;
    const auto* d = std::get_if<PlacedDrawing>(&face_.art[static_cast<std::size_t>(at)].kind);
    return d != nullptr && d->drawing->picture.bytes != nullptr;
}

void FacePainter::pictures(QPainter& p, const ThingId& moved, Point by) const {
    for (std::size_t i = 0; i < face_.art.size() && i < plan_.face->art->pictures.size(); ++i) {
        const auto* d = std::get_if<PlacedDrawing>(&face_.art[i].kind);
        Box box = plan_.face->art->pictures[i];
        if (d == nullptr || !d->drawing->picture.bytes || box.empty()) continue;
        const QImage image = image_of(d->drawing->picture.bytes);
        if (image.isNull()) continue;
        if (face_.art[i].id == moved) box = {box.low + by, box.high + by};
        // From the picture's own dots, y downwards, to the face, and from there as the face lies.
        const double sx = static_cast<double>(box.width()) / image.width();
        const double sy = static_cast<double>(box.height()) / image.height();
        const QTransform to_face(d->mirrored ? -sx : sx, 0, 0, -sy,
                                 static_cast<double>(d->mirrored ? box.high.x : box.low.x),
                                 static_cast<double>(box.high.y));
        p.save();
        // As it will be cut: on white film, cropped at the knife's line.
        QPainterPath cut;
        for (const ArtPart& part : plan_.face->art->parts[i])
            cut.addPath(view_.transform().map(path_of(face_.art[i].id == moved ? part.shape.moved(by) : part.shape)));
        p.setClipPath(cut, Qt::IntersectClip);
        p.fillPath(cut, Qt::white);
        p.setRenderHint(QPainter::SmoothPixmapTransform);
        p.setTransform(to_face * view_.transform(), true);
        p.drawImage(0, 0, image);
        p.restore();
    }
}

// The text or the art that a piece came from.
ThingId FacePainter::thing_of(const ColourPlan& lane, const Piece& piece) const {
    if (piece.art) {
        const int at = piece.line - 1'000;
        return at >= 0 && static_cast<std::size_t>(at) < face_.art.size() ? face_.art[static_cast<std::size_t>(at)].id
                                                                          : ThingId{};
    }
    for (const PlacedLetter& l : lane.face->lettering->letters) {
        if (l.index == piece.first) return face_.lettering.texts[static_cast<std::size_t>(l.of)].id;
    }
    return {};
}

void FacePainter::thin(QPainter& p) const {
    const Tokens& t = Theme::tokens();
    p.setRenderHint(QPainter::Antialiasing);
    const std::int64_t twice = plan_.face->blank->face.low.x + plan_.face->blank->face.high.x;
    const auto mark = [&](const ColourPlan& lane) {
        if (!lane.cut.thin) return;
        for (const ThinPlace& place : lane.cut.thin->places) {
            const QPointF at = view_.at(lane.face->mirrored ? Point{twice - place.at.x, place.at.y} : place.at);
            QPainterPath ring;
            constexpr double r = 7;
            if (place.what == Thin::Gap) {
                ring.addPolygon(QPolygonF({at + QPointF(0, -r), at + QPointF(r, 0), at + QPointF(0, r),
                                           at + QPointF(-r, 0), at + QPointF(0, -r)}));
            } else if (place.what == Thin::Keeper) {
                ring.addRect(QRectF(at - QPointF(r, r), QSizeF(2 * r, 2 * r)));
            } else {
                ring.addEllipse(at, r, r);
            }
            cased(p, ring, QPen(t.ochre, 1.8));
        }
    };
    if (all_ == nullptr) return mark(plan_);
    for (const ColourPlan& f : all_->colours) {
        if (f.face->id == plan_.face->id) mark(f);
    }
}

QPainterPath SeamFlag::path() const {
    const QPointF aside(out.y(), out.x());
    QPainterPath flag;
    flag.addPolygon(QPolygonF({foot + 4 * out - 9 * aside, foot + 4 * out + 9 * aside, foot + 16 * out}));
    return flag;
}

QRectF SeamFlag::room() const {
    if (out.x() != 0) return {foot + QPointF(out.x() > 0 ? 2 : -30, -10), QSizeF(28, 20)};
    return {foot + QPointF(-9, out.y() > 0 ? 2 : -22), QSizeF(31, 20)};
}

void FacePainter::sections(QPainter& p, std::optional<std::size_t> lit) const {
    const Tokens& t = Theme::tokens();
    p.setRenderHint(QPainter::Antialiasing);
    const QTransform transform = view_.transform();
    for (std::size_t i = 0; i < plan_.cut.loads->sections.size(); ++i) {
        QColor tint = section_tint(i);
        tint.setAlphaF(lit == i ? 0.75F : 0.45F);
        const QPainterPath film = transform.map(path_of(plan_.cut.loads->sections[i].film));
        p.setPen(Qt::NoPen);
        p.setBrush(tint);
        p.drawPath(film);
        if (lit == i) cased(p, film, QPen(t.chalk, 2));
    }
    // Where it is laid again.
    for (const Lay& lay : lays_of(plan_.cut.loads->sections)) {
        if (lay.time == 0) continue;
        const QPainterPath film = transform.map(path_of(plan_.cut.loads->sections[lay.section].film.laid(lay.move)));
        p.setBrush(Qt::NoBrush);
        cased(p, film, QPen(lit == lay.section ? t.chalk : t.pencil, lit == lay.section ? 2 : 1, Qt::DashLine));
    }
}

// At the seam's far end or, where no ruler stands there, at the near one, if that hides no ink; else outside the board.
SeamFlag FacePainter::free_flag(QPointF a, QPointF b, const std::vector<QRectF>& taken) const {
    const bool upright = std::abs(a.x() - b.x()) < 1;
    const bool a_first = upright ? a.y() < b.y() : a.x() < b.x();
    const QPointF out = upright ? QPointF(0, 1) : QPointF(1, 0);
    const auto clear = [&](const SeamFlag& flag) {
        const auto meets = [&](const QRectF& r) { return r.intersects(flag.room()); };
        const auto& pieces = *plan_.cut.pieces;
        return std::none_of(taken.begin(), taken.end(), meets) &&
               std::none_of(pieces.begin(), pieces.end(),
                            [&](const Piece& piece) { return meets(view_.rect(piece.shape.bounds())); });
    };
    SeamFlag far{a_first ? b : a, out};
    if (clear(far)) return far;
    const bool ruler = upright == view_.lengthwise();
    if (const SeamFlag near{a_first ? a : b, -out}; !ruler && clear(near)) return near;
    const QRectF around = view_.rect(plan_.face->blank->outline.bounds());
    far.foot = upright ? QPointF(far.foot.x(), std::max(far.foot.y(), around.bottom()))
                       : QPointF(std::max(far.foot.x(), around.right()), far.foot.y());
    while (!clear(far)) far.foot += 24 * out;
    return far;
}

std::vector<QRectF> FacePainter::seams(QPainter& p) const {
    const Tokens& t = Theme::tokens();
    p.setRenderHint(QPainter::Antialiasing);
    std::vector<QRectF> taken;
    std::size_t number = 0;
    for (const Seam& seam : plan_.cut.loads->seams) {
        const bool level = seam.axis == Axis::Y;
        const QPointF a = view_.at(level ? Point{seam.from, seam.where} : Point{seam.where, seam.from});
        const QPointF b = view_.at(level ? Point{seam.to, seam.where} : Point{seam.where, seam.to});
        QPainterPath path(a);
        path.lineTo(b);
        cased(p, path, QPen(t.chalk, 2, Qt::DashDotLine));
        const SeamFlag flag = free_flag(a, b, taken);
        taken.push_back(flag.room());
        p.strokePath(flag.path(), QPen(t.sheet, 4, Qt::SolidLine, Qt::RoundCap, Qt::RoundJoin));
        p.fillPath(flag.path(), t.chalk);
        p.setFont(Theme::font(13, QFont::DemiBold));
        const QString letter = QString::fromStdString(letter_for(number++));
        const auto write = [&](const QColor& colour, QPoint by) {
            p.setPen(colour);
            p.drawText(flag.room().translated(by),
                       (flag.out.x() < 0 ? Qt::AlignLeft : Qt::AlignRight) | Qt::AlignVCenter, letter);
        };
        // Written, not drawn as a path: that comes out otherwise the first time.
        for (const QPoint by : {QPoint(-1, -1), QPoint(1, -1), QPoint(-1, 1), QPoint(1, 1)}) write(t.sheet, by);
        write(t.chalk, {});
    }
    return taken;
}

}  // namespace skarvel
