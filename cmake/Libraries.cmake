# One static library per folder under src/. Each declares the libraries whose headers it includes, no more and no
# fewer; tests/links compares that with the sources.

add_library(anvil_warnings INTERFACE)
target_compile_options(anvil_warnings INTERFACE -Wall -Wextra -Wpedantic -Werror)
if(ANVIL_SANITIZE_THREADS)
    add_compile_options(-fsanitize=thread -fno-omit-frame-pointer)
    add_link_options(-fsanitize=thread)
endif()
if(ANVIL_SANITIZE)
    add_compile_options(-fsanitize=address,undefined -fno-omit-frame-pointer -fno-sanitize-recover=all)
    add_link_options(-fsanitize=address,undefined)
endif()

# Compiled once instead of in every file. System headers only: a change in the tree never rebuilds them, and every
# file still includes what it uses (./dev lint reads the sources without them).
set(ANVIL_COMMON_HEADERS <algorithm> <chrono> <cmath> <functional> <map> <memory> <optional> <set> <span> <string>
    <string_view> <variant> <vector> <fmt/format.h> <tl/expected.hpp>)

set(ANVIL_LIBRARIES "" CACHE INTERNAL "libraries in order")

# anvil_declare(name [library…]): what `name` includes of the others
function(anvil_declare name)
    set(ANVIL_LIBRARIES ${ANVIL_LIBRARIES} ${name} CACHE INTERNAL "libraries in order")
    set(ANVIL_LINKS_${name} ${ARGN} CACHE INTERNAL "what ${name} includes of the others")
endfunction()

# anvil_link_declared(target name): links what was declared for `name`
function(anvil_link_declared target name)
    foreach(library IN LISTS ANVIL_LINKS_${name})
        target_link_libraries(${target} PUBLIC anvil_${library})
    endforeach()
endfunction()

# anvil_library(name [extra libraries…]): library anvil_<name> from src/<name>/*.cpp
function(anvil_library name)
    file(GLOB sources CONFIGURE_DEPENDS "${PROJECT_SOURCE_DIR}/src/${name}/*.cpp"
         "${PROJECT_SOURCE_DIR}/src/${name}/include/anvil/${name}/*.h") # headers for moc
    add_library(anvil_${name} STATIC ${sources})
    target_include_directories(anvil_${name} PUBLIC "${PROJECT_SOURCE_DIR}/src/${name}/include")
    target_link_libraries(anvil_${name} PRIVATE anvil_warnings PUBLIC ${ARGN})
    anvil_link_declared(anvil_${name} ${name})
    set(headers anvil_quantity)
    if(TARGET anvil_store)
        set(headers anvil_store)
    endif()
    if(name STREQUAL quantity)
        target_precompile_headers(anvil_${name} PRIVATE ${ANVIL_COMMON_HEADERS})
    elseif(name STREQUAL store) # the first with Qt
        target_precompile_headers(anvil_${name} PRIVATE ${ANVIL_COMMON_HEADERS} <QObject> <QSqlQuery> <QString> <QVariant>)
    elseif(name STREQUAL chart) # Qt, and no database
        target_precompile_headers(anvil_${name} PRIVATE ${ANVIL_COMMON_HEADERS} <QPainter> <QString>)
    else()
        target_precompile_headers(anvil_${name} REUSE_FROM ${headers})
    endif()
endfunction()
