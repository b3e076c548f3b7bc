# What an installed Chispa is made of, besides its programs.
install(FILES demo/carousel.chispa demo/slow-round.ogg DESTINATION ${CMAKE_INSTALL_DATADIR}/chispa/demo)
install(FILES packaging/org.chispa.Chispa.desktop DESTINATION ${CMAKE_INSTALL_DATADIR}/applications)
install(FILES packaging/org.chispa.Chispa.metainfo.xml DESTINATION ${CMAKE_INSTALL_DATADIR}/metainfo)
install(FILES src/desk/parts/icons/chispa.svg DESTINATION ${CMAKE_INSTALL_DATADIR}/icons/hicolor/scalable/apps)
