#include "solids/check_sum.hpp"

#include <openssl/evp.h>

#include <fmt/format.h>

#include <array>

namespace deepstop::solids {

std::string sha256(const std::string& bytes)
{
    std::array<unsigned char, EVP_MAX_MD_SIZE> sum {};
    unsigned length = 0;
    EVP_Digest(bytes.data(), bytes.size(), sum.data(), &length, EVP_sha256(), nullptr);
    std::string out;
    for (unsigned i = 0; i < length; ++i)
        out += fmt::format("{:02x}", sum[i]);
    return out;
}

} // namespace deepstop::solids
