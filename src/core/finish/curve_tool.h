// Curves of light, done to a picture.
#pragma once

#include <memory>

#include "finish/curve.h"
#include "finish/sheet.h"

namespace bp {

std::shared_ptr<const FinishTool> curve_tool(const Curves& curves);

}  // namespace bp
