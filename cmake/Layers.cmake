# One static library per folder under src/. Each layer links the one before it, so that a header further
# down the list cannot be found; tests/layers proves it.

add_library(anvil_warnings INTERFACE)
target_compile_options(anvil_warnings INTERFACE -Wall -Wextra -Wpedantic -Werror)
if(ANVIL_SANITIZE)
    add_compile_options(-fsanitize=address,undefined -fno-omit-frame-pointer -fno-sanitize-recover=all)
    add_link_options(-fsanitize=address,undefined)
endif()

set(ANVIL_LAYERS "" CACHE INTERNAL "layers in order")

# anvil_layer(name [extra libraries…]): library anvil_<name> from src/<name>/*.cpp
function(anvil_layer name)
    file(GLOB sources CONFIGURE_DEPENDS "${PROJECT_SOURCE_DIR}/src/${name}/*.cpp"
         "${PROJECT_SOURCE_DIR}/src/${name}/include/anvil/${name}/*.h") # headers for moc
    add_library(anvil_${name} STATIC ${sources})
    add_library(anvil::${name} ALIAS anvil_${name})
    target_include_directories(anvil_${name} PUBLIC "${PROJECT_SOURCE_DIR}/src/${name}/include")
    target_link_libraries(anvil_${name} PRIVATE anvil_warnings PUBLIC ${ARGN})
    list(LENGTH ANVIL_LAYERS count)
    if(count GREATER 0)
        list(GET ANVIL_LAYERS -1 previous)
        target_link_libraries(anvil_${name} PUBLIC anvil_${previous})
    endif()
    set(ANVIL_LAYERS ${ANVIL_LAYERS} ${name} CACHE INTERNAL "layers in order")
endfunction()
