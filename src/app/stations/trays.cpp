#include "stations/tray.h"

namespace skarvel {

Tray* make_tray(Station station, Desk& desk, QWidget* parent) {
    switch (station) {
        case Station::Blank:
            return make_blank_tray(desk, parent);
        case Station::Lettering:
            return make_lettering_tray(desk, parent);
        case Station::Sections:
            return make_sections_tray(desk, parent);
        case Station::Method:
            return make_method_tray(desk, parent);
        case Station::Clock:
            return make_clock_tray(desk, parent);
        case Station::Bench:
            return nullptr;
        case Station::Logbook:
            return make_logbook_tray(desk, parent);
    }
    return nullptr;
}

}  // namespace skarvel
