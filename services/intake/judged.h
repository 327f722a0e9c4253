#pragma once
// In: what would come in, with what is chosen so far. Out: which ties it would keep, the one change that mends most of
// those it would not, and whether its figures are in the scale of what is there. Stores nothing.

#include "services/intake/importer.h"

namespace zl::services {

/// Fills in `holding`, `failing`, `repair` and `statements` of a preview with facts. A filing of more facts than a
/// report has (kMostJudged) is judged once it is in the book, as all are.
void judgeImport(ImportPreview& p, const LineChoices& choices, const Resources& resources);
inline constexpr size_t kMostJudged = 50'000;

/// Warns where a preview is in another scale than the book or than what comes in before it. To be called once for all.
void holdScales(std::vector<ImportPreview>& previews, const ImportContext& context);
/// For one of them, after it was corrected.
void holdScale(ImportPreview& p, const ImportContext& context);

/// What the repair of a preview would do, in words; empty where there is none.
std::string repairText(const ImportPreview& p, const model::Model& m);

/// Makes the change that the preview's repair proposes and judges it anew. Fails where none is proposed.
Status takeRepair(ImportPreview& p, const ImportContext& context);

}  // namespace zl::services
