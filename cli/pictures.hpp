// The library of pictures, loaded when something is drawn: with its dependencies it would double the time that
// every other verb takes to start.
#pragma once

#include "corvex/page_server.hpp"
#include "corvex/picture.hpp"
#include "corvex/report.hpp"
#include "corvex/view.hpp"

namespace corvex::cli {

// As corvex::draw does.
Expected<std::string, Problem> drawn(const Solution& solution, const PictureOptions& options, ImageFormat format);
Expected<std::string, Problem> drawn(const std::vector<PictureSide>& sides, Together together,
                                     const PictureOptions& options, ImageFormat format);
Expected<std::string, Problem> drawn(const Sweep& sweep, const std::vector<SweepRun>& runs, const std::string& title,
                                     const PictureOptions& options, ImageFormat format);

// A report, by the same library.
Expected<Report, Problem> reported(const Model& model, const Evaluation& evaluation, const ReportOptions& options,
                                   ReportFormat format);

// The live page, loaded in the same way: as one file, and served.
Expected<std::string, Problem> derivation_written(const Model& model, const Derivation& derivation,
                                                  const std::vector<BothWays>& both, const DerivationOptions& options,
                                                  ReportFormat format);
Expected<std::string, Problem> viewed(const std::vector<Viewed>& all, int digits);
Expected<std::string, Problem> served(const ViewServer& server);

// "1280x800" as the size of a picture; an empty answer means success. Nothing is changed by an empty text.
std::string picture_size(const std::string& text, PictureOptions& picture);
// By the end of the path; SVG for standard output.
std::optional<ImageFormat> picture_format(const std::string& path);

}  // namespace corvex::cli
