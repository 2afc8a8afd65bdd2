# Makes the locale with a decimal comma that tests run under, once.
if(NOT EXISTS "${TO}/de_DE.UTF-8/LC_NUMERIC")
    file(MAKE_DIRECTORY "${TO}")
    execute_process(COMMAND localedef -i de_DE -f UTF-8 "${TO}/de_DE.UTF-8" RESULT_VARIABLE failed)
    if(failed)
        message(FATAL_ERROR "localedef could not make de_DE.UTF-8: is the package locales installed?")
    endif()
endif()
