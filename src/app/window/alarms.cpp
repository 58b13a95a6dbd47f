#include "window/alarms.h"

#include <canberra.h>

#include <QDBusConnection>
#include <QDBusMessage>
#include <QDBusPendingCallWatcher>
#include <QDBusPendingReply>
#include <QTextToSpeech>

#include "theme/words.h"

namespace skarvel {
namespace {

class ThisMachine : public Caller {
  public:
    explicit ThisMachine(std::filesystem::path assets) : knock_(assets / "sounds/knock.wav") {}
    ~ThisMachine() override {
        if (sound_ != nullptr) ca_context_destroy(sound_);
        keep_awake(false);
    }

    void knock() override {
        if (sound_ == nullptr && ca_context_create(&sound_) != 0) sound_ = nullptr;
        if (sound_ == nullptr) return;
        ca_context_play(sound_, 0, CA_PROP_MEDIA_FILENAME, knock_.c_str(), CA_PROP_EVENT_DESCRIPTION, "knock", nullptr);
    }

    // As the desktop notifications specification has it; nobody may be there to answer.
    void notice(const QString& title, const QString& words, bool urgent) override {
        const QDBusConnection bus = QDBusConnection::sessionBus();
        if (!bus.isConnected()) return;
        QDBusMessage call =
            QDBusMessage::createMethodCall("org.freedesktop.Notifications", "/org/freedesktop/Notifications",
                                           "org.freedesktop.Notifications", "Notify");
        const QVariantMap hints{{"urgency", QVariant::fromValue(static_cast<uchar>(urgent ? 2 : 1))}};
        call << "Skarvel" << uint{0} << "skarvel" << title << words.toHtmlEscaped() << QStringList{} << hints << -1;
        bus.asyncCall(call);
    }

    void say(const QString& words) override {
        if (!speech_) speech_ = std::make_unique<QTextToSpeech>();
        if (speech_->state() == QTextToSpeech::Error) return;
        speech_->stop();
        speech_->say(words);
    }

    void keep_awake(bool awake) override {
        if (awake == awake_) return;
        awake_ = awake;
        const QDBusConnection bus = QDBusConnection::sessionBus();
        if (!bus.isConnected()) return;
        const auto call = [](const char* what) {
            return QDBusMessage::createMethodCall("org.freedesktop.ScreenSaver", "/org/freedesktop/ScreenSaver",
                                                  "org.freedesktop.ScreenSaver", what);
        };
        if (!awake) {
            if (!cookie_) return;
            QDBusMessage away = call("UnInhibit");
            away << *cookie_;
            cookie_.reset();
            bus.asyncCall(away);
            return;
        }
        QDBusMessage inhibit = call("Inhibit");
        inhibit << "Skarvel" << in_words("alarms.at-the-bench");
        auto* watcher = new QDBusPendingCallWatcher(bus.asyncCall(inhibit), &home_);
        QObject::connect(watcher, &QDBusPendingCallWatcher::finished, &home_, [this](QDBusPendingCallWatcher* done) {
            const QDBusPendingReply<uint> reply = *done;
            if (!reply.isError()) cookie_ = reply.value();
            done->deleteLater();
        });
    }

  private:
    std::string knock_;
    ca_context* sound_ = nullptr;
    std::unique_ptr<QTextToSpeech> speech_;
    QObject home_;
    bool awake_ = false;
    std::optional<uint> cookie_;
};

}  // namespace

std::unique_ptr<Caller> machine_caller(const std::filesystem::path& assets) {
    return std::make_unique<ThisMachine>(assets);
}

Alarms::Alarms(Desk& desk, std::unique_ptr<Caller> caller, QObject* parent)
    : QObject(parent), desk_(desk), caller_(std::move(caller)) {
    seconds_.setInterval(1000);
    connect(&seconds_, &QTimer::timeout, this, &Alarms::look);
    seconds_.start();
}

void Alarms::look() {
    if (!desk_.current()) return;
    const Moment now = desk_.now();
    // Another job: what ended before it was opened is no news; the bench shows it.
    if (!looked_ || of_ != desk_.path() || now < *looked_) {
        of_ = desk_.path();
        looked_ = now;
        return;
    }
    const std::vector<Call> calls = calls_between(*desk_.plan().bench, *looked_, now);
    looked_ = now;
    if (calls.empty()) return;
    const Calls& how = desk_.shop().calls;
    QStringList words;
    bool urgent = false;
    for (const Call& c : calls) {
        words << QString::fromStdString(desk_.say(c.what));
        urgent = urgent || c.why != Calling::Ready;
    }
    const QString all = words.join("\n");
    if (how.sound) caller_->knock();
    if (how.notice) caller_->notice(QString::fromStdString(desk_.job().title), all, urgent);
    if (how.aloud) caller_->say(all);
    if (how.flash) Q_EMIT flashed(all, urgent);
    Q_EMIT desk_.said(all, urgent);
}

void Alarms::read_aloud(const QString& words) {
    if (desk_.shop().calls.aloud) caller_->say(words);
}

}  // namespace skarvel
