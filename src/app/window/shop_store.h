// window/shop_store.h
//
// The shop store: the maker's shop as its file holds it, read once and written whenever it changes.
#pragma once

#include <filesystem>

#include "job/job.h"

namespace skarvel {

class ShopStore {
  public:
    /// A file that is not there, or cannot be read, leaves the usual shop.
    explicit ShopStore(std::filesystem::path file);
    [[nodiscard]] const Shop& shop() const { return shop_; }
    /// Takes the shop in any case; refused where it could not be written.
    Expected<bool> set(const Shop& shop);

  private:
    std::filesystem::path file_;
    Shop shop_;
};

}  // namespace skarvel
