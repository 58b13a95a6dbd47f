// window/shop_store.h
//
// The shop store: the maker's shop as its file holds it, read once and written whenever it changes. What another
// program with the same folder has written meanwhile is taken in; a file that cannot be read is put aside, and told.
#pragma once

#include <filesystem>
#include <optional>

#include "files/save.h"
#include "job/job.h"

namespace skarvel {

class ShopStore {
  public:
    /// A file that is not there leaves the usual shop.
    explicit ShopStore(std::filesystem::path file);
    [[nodiscard]] const Shop& shop() const { return shop_; }
    /// There was no file: nobody has worked here before.
    [[nodiscard]] bool is_new() const { return is_new_; }
    /// Why the file could not be read, and where it lies now.
    [[nodiscard]] const std::optional<Problem>& damaged() const { return damaged_; }
    /// Writes it down where there is no file yet.
    void keep();
    /// Takes the shop in any case; refused where it could not be written.
    Expected<bool> set(const Shop& shop);

  private:
    std::filesystem::path file_;
    Shop shop_, written_;  // as it is, and as the file had it when it was read or written here
    std::optional<FileStamp> stamp_;
    bool is_new_ = false;
    std::optional<Problem> damaged_;
};

}  // namespace skarvel
