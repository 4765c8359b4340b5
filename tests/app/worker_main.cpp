/// Somebody at work, for tests that kill him: edits a file steadily, saves now and then, takes up what the last one left behind, and says
/// on standard output what he has done. Each state of the build carries its number, in the thickness of a rotor.
///   worker FILE work | tidy

#include "window/application.hpp"
#include "document.hpp"
#include "jobcard/jobcard.hpp"
#include "library_store.hpp"

#include <QFileInfo>
#include <QTimer>

#include <cstdio>
#include <random>

using namespace deepstop;
using namespace deepstop::app;

namespace {

const std::string pointer = "/setups/1/front/rotor/thickness_mm";
constexpr double base = 0.02;
constexpr double per = 1e-7;

long numberOf(const Build& build) { return std::lround((build.setups[1].front->rotor.thickness.value.value_or(base) - base) / per); }

void say(const char* what, long number)
{
    std::printf("%s %ld %lld\n", what, number, static_cast<long long>(QDateTime::currentMSecsSinceEpoch()));
    std::fflush(stdout);
}

} // namespace

int main(int argc, char** argv)
{
    Application application(argc, argv);
    const auto file = QString::fromLocal8Bit(argv[1]);
    const bool tidy = argc > 2 && std::string_view(argv[2]) == "tidy";
    Document document;
    LibraryStore library;
    bool ending = false;
    application.endOnSignals([&] {
        document.leave();
        ending = true;
    });
    document.setAutosaveDelay(100);
    // The newest of what was left behind is taken up, the others are older states of the same work.
    const auto left = Recovery::leftBehind();
    QString newest;
    long most = -1;
    for (const auto& each : left)
        if (const long number = numberOf(*Recovery::read(each.copy).build); number > most) {
            most = number;
            newest = each.copy;
        }
    document.open(file);
    if (most > numberOf(document.build()))
        document.recover(newest);
    for (const auto& each : left)
        if (each.copy != newest || most <= numberOf(document.build()))
            if (QFileInfo::exists(each.copy) && each.copy != document.recovery().path())
                Recovery::forget(each.copy);
    long number = numberOf(document.build());
    say("began", number);
    if (tidy) {
        document.save(file, Document::Over::OthersWork);
        say("saved", number);
        return 0;
    }
    std::mt19937 rng(static_cast<unsigned>(QDateTime::currentMSecsSinceEpoch()));
    QTimer work;
    QObject::connect(&work, &QTimer::timeout, [&] {
        if (ending)
            return;
        // A reading and a tick of the card, as one piece of work.
        Build build =
            withReading(document.build(), pointer, { base + static_cast<double>(++number) * per, {}, Known::Measured, "micrometer", {} });
        jobcard::tickIn(jobcard::recordOf(build, "varnik-330"), "step-" + std::to_string(number % 100), Checked::Fine,
            { "W.", std::to_string(number) });
        document.edit(QStringLiteral("work"), [&](const Build&) { return build; });
        say("did", number);
        if (rng() % 25 == 0) {
            document.save(file, Document::Over::OthersWork);
            say("saved", number);
        }
        if (rng() % 40 == 0) {
            library::Library more;
            more.hoses.push_back({ "hose-" + std::to_string(number), {}, {} });
            library.add(std::move(more));
        }
    });
    work.start(7);
    return Application::exec();
}
