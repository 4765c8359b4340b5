#include "files/track_ways.hpp"
#include "language/language.hpp"

#include <algorithm>
#include <filesystem>
#include <fstream>
#include <utility>
#include <vector>

namespace deepstop::files {

TrackReader::TrackReader(std::function<void(const Fix&)> sink, Kind kind, std::optional<LogColumns> columns)
    : sink_(std::move(sink)), columns_(std::move(columns))
{
    if (kind == Kind::Nmea)
        way_ = nmeaWay(sink_, count_);
}

TrackReader::~TrackReader() = default;

const LogCount& TrackReader::count() const { return count_; }

void TrackReader::take(std::string_view bytes)
{
    if (!way_) {
        // Nothing is kept of what comes before it.
        const auto start = bytes.find_first_not_of(" \t\r\n\xEF\xBB\xBF");
        blankLines_ += static_cast<std::size_t>(std::ranges::count(bytes.substr(0, start), '\n'));
        if (start == std::string_view::npos)
            return;
        const char first = bytes[start];
        const bool isCsv = columns_ || (first != '<' && first != '$');
        if (columns_)
            way_ = csvWay(sink_, count_, columns_);
        else if (first == '<')
            way_ = gpxWay(sink_, count_);
        else if (first == '$')
            way_ = nmeaWay(sink_, count_);
        else
            way_ = csvWay(sink_, count_, {});
        // Lines are counted from the file's first.
        if (isCsv)
            count_.lines = blankLines_;
        way_->take(bytes.substr(start));
        return;
    }
    way_->take(bytes);
}

void TrackReader::finish()
{
    if (!way_)
        throw Refusal(tr("the log is empty."));
    way_->finish();
    if (count_.fixes == 0)
        throw Refusal(tr("the log has no line with a speed."));
}

bool readTrack(const std::string& path, TrackReader& reader, const std::function<bool(double)>& progress)
{
    std::error_code none;
    if (!std::filesystem::is_regular_file(path, none))
        throw Refusal(std::filesystem::exists(path, none) ? tr("{}: is not a file.", path) : tr("{}: there is no such file.", path));
    std::ifstream in(path, std::ios::binary);
    if (!in)
        throw Refusal(tr("{}: cannot be read. Look at its permissions.", path));
    const auto size = static_cast<double>(std::max<std::uintmax_t>(1, std::filesystem::file_size(path, none)));
    std::vector<char> piece(1 << 20);
    double read = 0;
    try {
        while (in) {
            in.read(piece.data(), static_cast<std::streamsize>(piece.size()));
            const auto got = in.gcount();
            reader.take({ piece.data(), static_cast<std::size_t>(got) });
            read += static_cast<double>(got);
            if (progress && !progress(std::min(1.0, read / size)))
                return false;
        }
        if (in.bad())
            throw Refusal(tr("reading it broke off."));
        reader.finish();
    } catch (const Refusal& refusal) {
        throw Refusal(path + ": " + refusal.what());
    }
    return true;
}

} // namespace deepstop::files
