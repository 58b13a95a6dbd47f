// stations/art_fields.h
//
// Fields of the art at hand: each kind has its own, built when one of that kind is first shown.
#pragma once

#include <QVBoxLayout>
#include <QWidget>
#include <functional>
#include <map>
#include <vector>

#include "window/fields.h"

namespace skarvel {

class ArtFields : public QWidget {
    Q_OBJECT

  public:
    ArtFields(Desk& desk, QWidget* parent);
    void refresh();

  private:
    template <class Kind>
    const Kind* at_hand() const {
        const auto art = desk_.art_at();
        return art ? std::get_if<Kind>(&desk_.face().art[*art].kind) : nullptr;
    }
    void edit(const std::function<void(Art&)>& change, const QString& merge = {});
    template <class T>
    T* field(const QString& name, T* widget);
    template <class Kind>
    MeasureField* measure(const QString& name, Measure Kind::*what, bool may_be_empty = false,
                          const QString& otherwise = {});
    template <class Kind>
    void check(const QString& name, bool Kind::*what);
    template <class Kind, class E>
    void choice(const QString& name, E Kind::*what, const QStringList& words);
    template <class Kind>
    void typeface(TypefaceName Kind::*what);
    template <class Kind>
    void line(const QString& name, const std::function<QString(const Kind&)>& get,
              const std::function<void(Kind&, const QString&)>& set);
    void build(std::size_t kind);
    void build_drawing();

    Desk& desk_;
    QVBoxLayout* layout_;
    std::map<std::size_t, QWidget*> parts_;
    std::map<std::size_t, std::vector<std::function<void()>>> refreshers_;
    std::size_t building_ = 0;
    QVBoxLayout* into_ = nullptr;
};

}  // namespace skarvel
