# One static library per folder under src/. Each layer links the one before it, so that a header further
# down the list cannot be found; tests/layers proves it.

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

set(ANVIL_LAYERS "" CACHE INTERNAL "layers in order")

# anvil_layer(name [extra libraries…]): library anvil_<name> from src/<name>/*.cpp
function(anvil_layer name)
    file(GLOB sources CONFIGURE_DEPENDS "${PROJECT_SOURCE_DIR}/src/${name}/*.cpp"
         "${PROJECT_SOURCE_DIR}/src/${name}/include/anvil/${name}/*.h") # headers for moc
    add_library(anvil_${name} STATIC ${sources})
    add_library(anvil::${name} ALIAS anvil_${name})
    target_include_directories(anvil_${name} PUBLIC "${PROJECT_SOURCE_DIR}/src/${name}/include")
    target_link_libraries(anvil_${name} PRIVATE anvil_warnings PUBLIC ${ARGN})
    set(headers anvil_quantity)
    if(TARGET anvil_store)
        set(headers anvil_store)
    endif()
    list(LENGTH ANVIL_LAYERS count)
    if(count GREATER 0)
        list(GET ANVIL_LAYERS -1 previous)
        target_link_libraries(anvil_${name} PUBLIC anvil_${previous})
    endif()
    if(name STREQUAL quantity)
        target_precompile_headers(anvil_${name} PRIVATE ${ANVIL_COMMON_HEADERS})
    elseif(name STREQUAL store) # the first with Qt
        target_precompile_headers(anvil_${name} PRIVATE ${ANVIL_COMMON_HEADERS} <QObject> <QSqlQuery> <QString> <QVariant>)
    else()
        target_precompile_headers(anvil_${name} REUSE_FROM ${headers})
    endif()
    set(ANVIL_LAYERS ${ANVIL_LAYERS} ${name} CACHE INTERNAL "layers in order")
endfunction()
