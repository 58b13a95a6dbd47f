#include "window/shop_store.h"

#include "files/job_file.h"
#include "files/save.h"

namespace skarvel {

ShopStore::ShopStore(std::filesystem::path file) : file_(std::move(file)), shop_(usual_shop()) {
    if (const auto text = read_file(file_)) {
        if (const auto shop = read_shop(*text)) shop_ = *shop;
    }
}

Expected<bool> ShopStore::set(const Shop& shop) {
    if (shop == shop_) return false;
    shop_ = shop;
    if (const auto saved = save_file(file_, write_shop(shop_)); !saved) return tl::unexpected(saved.error());
    return true;
}

}  // namespace skarvel
