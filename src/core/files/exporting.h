// files/exporting.h
//
// Export: everything that goes to the bench from one plan: a cut file for each load and the sheets, into one folder.
#pragma once

#include <filesystem>
#include <vector>

#include "job/plan.h"

namespace skarvel {

/// The files written, in order. Refused when there is nothing to cut or a file cannot be written: then none is, and
/// what lay in the folder is as it was. All are written beside first and moved to their places together, the manifests
/// last: a folder without a manifest is no whole export. `left_out`: what single files were not written for, as a load
/// beyond what its machine can count.
Expected<std::vector<std::filesystem::path>> export_job(const Job& job, const Plan& plan, const Shop& shop,
                                                        const Library& library, const std::filesystem::path& folder,
                                                        std::vector<Problem>* left_out = nullptr);

}  // namespace skarvel
