# Flags every target of the project shares.
set(CMAKE_CXX_STANDARD 20)
set(CMAKE_CXX_STANDARD_REQUIRED ON)
set(CMAKE_CXX_EXTENSIONS OFF)
set(CMAKE_EXPORT_COMPILE_COMMANDS ON)
set(CMAKE_POSITION_INDEPENDENT_CODE ON)
if(NOT CMAKE_BUILD_TYPE)
  set(CMAKE_BUILD_TYPE Release)
endif()

# -O3 is kept for the evaluator, where it was measured to matter.
set(CMAKE_CXX_FLAGS_RELEASE "-O2 -DNDEBUG")

find_program(CCACHE_PROGRAM ccache)
if(CCACHE_PROGRAM)
  # What ccache asks for before it keeps files compiled with a precompiled header.
  set(CMAKE_CXX_COMPILER_LAUNCHER ${CMAKE_COMMAND} -E env CCACHE_SLOPPINESS=pch_defines,time_macros ${CCACHE_PROGRAM})
endif()
add_library(zealous_flags INTERFACE)
# Contraction stays off so that every instruction set gives the same bits.
target_compile_options(zealous_flags INTERFACE
  -Wall -Wextra -Wpedantic -Wshadow -Wnon-virtual-dtor -Wold-style-cast -Wcast-qual
  -Woverloaded-virtual -Wimplicit-fallthrough -Wextra-semi -Wconversion -Werror -ffp-contract=off)
if(CMAKE_CXX_COMPILER_ID STREQUAL "GNU")
  # GCC 12 warns falsely of overlapping copies inside std::string (its bug 105651).
  target_compile_options(zealous_flags INTERFACE -Wno-restrict)
endif()

if(CMAKE_CXX_COMPILER_ID MATCHES "Clang")
  # The evaluator's loop hints are in GCC's words; Clang builds only the fuzz targets.
  target_compile_options(zealous_flags INTERFACE -Wno-unknown-pragmas)
endif()

option(ZEALOUS_SANITIZE "Address and undefined-behaviour sanitizers" OFF)
if(ZEALOUS_SANITIZE)
  # GCC 12 sees uninitialised members of empty optionals in the code that the sanitizers add; the
  # plain build keeps the warning.
  add_compile_options(-fsanitize=address,undefined -fno-sanitize-recover=all -fno-omit-frame-pointer
                      $<$<CXX_COMPILER_ID:GNU>:-Wno-maybe-uninitialized>)
  add_link_options(-fsanitize=address,undefined)
  add_compile_definitions(ZEALOUS_SANITIZE)
endif()

option(ZEALOUS_RACES "The thread sanitizer" OFF)
if(ZEALOUS_RACES)
  add_compile_options(-fsanitize=thread -fno-omit-frame-pointer "$<$<CXX_COMPILER_ID:GNU>:-Wno-maybe-uninitialized;-Wno-tsan>")
  add_link_options(-fsanitize=thread)
  add_compile_definitions(ZEALOUS_SANITIZE)
endif()

if(ZEALOUS_FUZZ)
  add_compile_options(-fsanitize=fuzzer-no-link)
endif()

# zealous_precompiled(target HEADERS ...): headers that most sources of a target read and that do not
# change with our code are parsed once. Sources still name all that they use: tools/lint reads each
# without the precompiled ones.
set(ZEALOUS_STANDARD_HEADERS <algorithm> <charconv> <cmath> <cstdint> <filesystem> <functional> <map> <memory>
    <optional> <set> <span> <string> <string_view> <tuple> <unordered_map> <vector> <boost/smart_ptr/intrusive_ptr.hpp>
    <tl/expected.hpp>)
function(zealous_precompiled target)
  if(CMAKE_CXX_COMPILER_ID STREQUAL "GNU")
    # Its false warnings of copies inside std::string are more when the string comes precompiled. The
    # sanitizers see what is true of them, and core, which is parsed fast as it is, keeps them.
    target_compile_options(${target} PRIVATE -fpch-preprocess -Winvalid-pch -Wno-array-bounds -Wno-stringop-overflow
                           -Wno-stringop-overread)
  endif()
  target_precompile_headers(${target} PRIVATE ${ZEALOUS_STANDARD_HEADERS} ${ARGN})
endfunction()

# zealous_joined(target MOST SOURCES ...): the sources of one folder are compiled together, MOST at a time, so
# that their headers are read and their templates made once for all of them. It takes a third of the time of a
# fresh build. What this hides, a source that leans on what another includes, tools/lint sees: it builds
# without. A group never reaches over a folder's border, so that a new source moves only its neighbours.
option(ZEALOUS_JOINED "Compile the sources of a folder together" ON)
function(zealous_joined target most)
  if(NOT ZEALOUS_JOINED)
    return()
  endif()
  set_target_properties(${target} PROPERTIES UNITY_BUILD ON UNITY_BUILD_MODE GROUP)
  set(folder "")
  foreach(source IN LISTS ARGN)
    if(NOT source MATCHES "\\.cpp$")
      continue()
    endif()
    cmake_path(GET source PARENT_PATH parent)
    if(NOT parent STREQUAL folder)
      set(folder ${parent})
      set(within 0)
    endif()
    math(EXPR group "${within} / ${most}")
    math(EXPR within "${within} + 1")
    cmake_path(GET parent FILENAME room)
    set_source_files_properties(${source} PROPERTIES UNITY_GROUP ${room}_${group})
  endforeach()
endfunction()

# zealous_layer(name PUBLIC ... PRIVATE ... PRECOMPILED ...): a static library of every source below the current folder.
function(zealous_layer name)
  cmake_parse_arguments(LAYER "" "" "PUBLIC;PRIVATE;PRECOMPILED" ${ARGN})
  file(GLOB_RECURSE sources CONFIGURE_DEPENDS ${CMAKE_CURRENT_SOURCE_DIR}/*.cpp)
  add_library(${name} STATIC ${sources})
  target_include_directories(${name} PUBLIC ${CMAKE_SOURCE_DIR})
  target_link_libraries(${name} PUBLIC ${LAYER_PUBLIC} PRIVATE zealous_flags ${LAYER_PRIVATE})
  zealous_joined(${name} 8 ${sources})
  if(LAYER_PRECOMPILED)
    zealous_precompiled(${name} ${LAYER_PRECOMPILED})
  endif()
endfunction()

# zealous_starts(program ARGUMENTS ...): the build fails where a program that it made does not start. A
# linker may lay a program out so that the loader refuses it, and only for some lengths of path names;
# so the system's own linker is used, and what LDFLAGS may ask for instead is found out here.
function(zealous_starts program)
  add_custom_command(TARGET ${program} POST_BUILD VERBATIM
    COMMAND ${CMAKE_COMMAND} -E env QT_QPA_PLATFORM=offscreen
            sh ${CMAKE_SOURCE_DIR}/cmake/starts.sh $<TARGET_FILE:${program}> ${ARGN})
endfunction()
