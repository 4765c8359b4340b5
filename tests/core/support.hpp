#pragma once
/// What several tests use.

#include "files/build_file.hpp"
#include "study/study.hpp"

#include <QByteArray>
#include <QDebug>
#include <QProcess>
#include <QString>

#include <random>

#include "test_list.hpp"

inline deepstop::Build demo(const char* name = "halden-merle")
{
    return deepstop::files::loadBuild(std::string(DEEPSTOP_DATA "/demo/") + name + ".deepstop").build;
}

/// Studies of one build changed in many ways: each follows the first, so that what a change leaves alone is not worked out again.
/// That this is the same as from nothing is held by the test of what a study remembers.
class Following {
public:
    explicit Following(deepstop::Build build, deepstop::SetupPair pair = {}, deepstop::Remedies remedies = deepstop::Remedies::Sought)
        : of_ { std::move(pair), deepstop::UnitSystem::Metric, remedies, nullptr },
          first_(std::make_shared<const deepstop::Study>(studied(std::move(build))))
    {
        of_.last = first_;
    }
    [[nodiscard]] const deepstop::Study& first() const { return *first_; }
    /// Changed builds are made of this one.
    [[nodiscard]] const deepstop::Build& build() const { return *first_->build; }
    [[nodiscard]] deepstop::Study operator()(deepstop::Build changed) const { return studied(std::move(changed)); }

private:
    [[nodiscard]] deepstop::Study studied(deepstop::Build build) const
    {
        return *deepstop::study(std::make_shared<const deepstop::Build>(std::move(build)), of_, std::atomic<bool>(false));
    }
    deepstop::StudyOf of_;
    std::shared_ptr<const deepstop::Study> first_;
};

/// The legs of a duty are alike, the stops of a session and the entries of a log: the first few stand for all.
inline bool isOneOfMany(std::string_view pointer)
{
    for (const std::string_view list : { "/legs/", "/stops/", "/log/" })
        if (const auto at = pointer.find(list); at != std::string_view::npos) {
            const auto index = pointer.substr(at + list.size());
            return index.size() < 2 || index[1] != '/' || index[0] > (list == "/legs/" ? '2' : '0');
        }
    return false;
}

/// Standard output of a program fed with `input`; fails the test through an empty answer when it does not end well.
inline QByteArray answerOf(const QString& program, const QStringList& arguments, const QByteArray& input = {})
{
    QProcess process;
    process.start(program, arguments);
    process.write(input);
    process.closeWriteChannel();
    if (!process.waitForFinished(120000) || process.exitCode() != 0) {
        qWarning().noquote() << program << arguments << process.readAllStandardError();
        return {};
    }
    return process.readAllStandardOutput();
}

/// The same cases at every run.
inline std::mt19937& rng()
{
    static std::mt19937 generator(20261123);
    return generator;
}
inline double between(double low, double high) { return std::uniform_real_distribution<double>(low, high)(rng()); }
inline int among(int low, int high) { return std::uniform_int_distribution<int>(low, high)(rng()); }

inline bool near(double a, double b, double relative)
{
    return std::abs(a - b) <= relative * std::max({ std::abs(a), std::abs(b), 1e-300 });
}
