// The pictures, and the parts that they share. Each adds to a scene.
#pragma once

#include "corvex/derive.hpp"
#include "corvex/modes.hpp"
#include "picture/scene.hpp"

namespace corvex::picture {

// Points and members with their names; `members` false leaves those of members out.
void add_names(Scene& scene, bool members);
// Each drawn as what it holds: directions as wedges, rotations as clamps, springs as coils.
void add_supports(Scene& scene);
// Loads of the case: forces by size within their kind, line loads with both end values, others as symbols.
void add_loads(Scene& scene);

// Rings about the objects of the findings in the options.
void add_marks(Scene& scene);

void draw_structure(Scene& scene);
void draw_deformed(Scene& scene);
// N, V, M or T on the members.
void draw_diagram(Scene& scene, PictureOf what);
// The largest and the least of N, V, M or T over all assessed cases.
void draw_envelope(Scene& scene, PictureOf what);
void draw_reactions(Scene& scene);
// The shape of one mode of these.
void draw_vibration(Scene& scene, const VibrationMode& mode, std::size_t number);
void draw_buckling(Scene& scene, const BucklingMode& mode, std::size_t number);
// Normal stress of both faces of each member.
void draw_faces(Scene& scene);
// Stress, or its share of the strength, along the members.
void draw_stress(Scene& scene, bool share);

// Any picture of one solution; nothing where a section has no shape to draw.
std::optional<Drawing> drawing_of(const Solution& solution, PictureOptions options, const Lettering& lettering,
                                  const std::vector<PictureSide>& beside = {}, const Modes& shapes = {});

// Whether the envelope is asked for, and no case has this name.
bool is_envelope(const Solution& solution, const PictureOptions& options);
// The case that is named, else the one that governs: of the member, where the picture is of one.
std::size_t case_of(const Solution& solution, const PictureOptions& options);

// One member alone: loads, V, M, slope and deflection under each other.
Drawing sheet(const Solution& solution, const PictureOptions& options, const Lettering& lettering);

// The section of one member, and the stress across it at its worst place. Nothing where only figures are given.
std::optional<Drawing> section_picture(const Solution& solution, const PictureOptions& options,
                                       const Lettering& lettering);

// A free body with everything that acts on it: arrows with their names, loads in another colour.
Drawing free_body_picture(const FreeBody& body, bool plane, Up up, const PictureOptions& options,
                          const Lettering& lettering);

// The figures of a sweep, one panel each.
Drawing sweep_plot(const Sweep& sweep, const std::vector<SweepRun>& runs, const std::string& title,
                   const PictureOptions& options, const Lettering& lettering);

// Deformed shapes or diagrams of the scene's solution and of the other ones. `first`: the name of the scene's own.
void draw_overlay(Scene& scene, const std::string& first, PictureOf what, const Lettering& lettering);

// Local axes and positive internal forces, in the plane or in space.
Drawing signs_drawing(bool plane, const PictureOptions& options, const Lettering& lettering);

// Arrangement of a number of pictures on a page.
struct Grid {
  std::size_t columns = 1, rows = 1;
  double width = 0, height = 0;  // of each
};
Grid grid_for(std::size_t count, double width, double height);
Drawing side_by_side(std::vector<Drawing> parts, const Grid& grid, const std::string& title, double width,
                     double height);

}  // namespace corvex::picture
