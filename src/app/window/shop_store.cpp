#include "window/shop_store.h"

#include "files/job_file.h"

namespace skarvel {

namespace fs = std::filesystem;

ShopStore::ShopStore(fs::path file) : file_(std::move(file)), shop_(usual_shop()), written_(shop_) {
    std::error_code error;
    is_new_ = !fs::exists(file_, error);
    if (is_new_) return;
    const auto text = read_file(file_);
    const auto shop = text ? read_shop(*text) : tl::unexpected(text.error());
    if (shop) {
        shop_ = written_ = *shop;
        stamp_ = stamp_of(file_);
        return;
    }
    // It is not written over: whoever made it may still want it.
    fs::path aside = file_;
    for (int n = 1; n < 1000; ++n) {
        aside = file_;
        aside += ".damaged-" + std::to_string(n);
        if (!fs::exists(aside, error)) break;
    }
    fs::rename(file_, aside, error);
    damaged_ =
        Problem{{"shop.damaged",
                 {{"why", std::vector<Reason>{shop.error().what}}, {"file", error ? file_.string() : aside.string()}}},
                "shop",
                {"shop.damaged-remedy", {}},
                Mark::Stop};
}

void ShopStore::keep() {
    if (stamp_) return;
    if (const auto saved = save_file(file_, write_shop(shop_))) stamp_ = *saved;
}

Expected<bool> ShopStore::set(const Shop& shop) {
    if (shop == shop_) return false;
    shop_ = shop;
    // Another program may have written it since.
    if (const auto now = stamp_of(file_); now && now != stamp_) {
        const auto text = read_file(file_);
        const auto theirs = text ? read_shop(*text) : tl::unexpected(text.error());
        if (theirs) shop_ = merged_shop(written_, shop_, *theirs);
    }
    const auto saved = save_file(file_, write_shop(shop_));
    if (!saved) return tl::unexpected(saved.error());
    stamp_ = *saved;
    written_ = shop_;
    return true;
}

}  // namespace skarvel
