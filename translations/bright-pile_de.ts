<?xml version="1.0" encoding="utf-8"?>
<!DOCTYPE TS>
<TS version="2.1" language="de" sourcelanguage="en">
<context>
    <name>Asked</name>
    <message>
        <source>%1 is there already.</source>
        <translation>%1 gibt es schon.</translation>
    </message>
    <message>
        <source>In %1. What is in it now would be lost.</source>
        <translation>In %1. Was jetzt darin ist, ginge verloren.</translation>
    </message>
    <message>
        <source>Choose another name</source>
        <translation>Anderer Name</translation>
    </message>
    <message>
        <source>Goes back to the dialog</source>
        <translation>Zurück zum Dialog</translation>
    </message>
    <message>
        <source>Replace it</source>
        <translation>Ersetzen</translation>
    </message>
    <message>
        <source>Writes over the file</source>
        <translation>Überschreibt die Datei</translation>
    </message>
    <message>
        <source>In %1. Pictures go into a new folder, or one that is empty.</source>
        <translation>In %1. Bilder kommen in einen neuen Ordner oder einen leeren.</translation>
    </message>
    <message>
        <source>Bright Pile</source>
        <translation>Bright Pile</translation>
    </message>
</context>
<context>
    <name>Menus</name>
    <message>
        <source>Open again</source>
        <translation>Wieder öffnen</translation>
    </message>
</context>
<context>
    <name>Merge</name>
    <message numerus="yes">
        <source>%n frames</source>
        <translation>
            <numerusform>%n Aufnahme</numerusform>
            <numerusform>%n Aufnahmen</numerusform>
        </translation>
    </message>
</context>
<context>
    <name>QObject</name>
    <message>
        <source>Crop</source>
        <translation>Beschneiden</translation>
    </message>
    <message>
        <source>Switch to Frame to mark sensor spots: there they are where the sensor has them.</source>
        <translation>Wechsle zu Aufnahme, um Sensorflecken zu markieren: dort sind sie, wo der Sensor sie hat.</translation>
    </message>
    <message>
        <source>Give back sensor spot</source>
        <translation>Sensorfleck zurückgeben</translation>
    </message>
    <message>
        <source>Turn frame %1</source>
        <translation>Aufnahme %1 drehen</translation>
    </message>
    <message>
        <source>Scale frame %1</source>
        <translation>Aufnahme %1 vergrößern</translation>
    </message>
    <message>
        <source>Move frame %1</source>
        <translation>Aufnahme %1 bewegen</translation>
    </message>
    <message>
        <source>Turn part</source>
        <translation>Teil drehen</translation>
    </message>
    <message>
        <source>Scale part</source>
        <translation>Teil vergrößern</translation>
    </message>
    <message>
        <source>Move part</source>
        <translation>Teil bewegen</translation>
    </message>
</context>
<context>
    <name>Told</name>
    <message>
        <source> or </source>
        <translation> oder </translation>
    </message>
    <message>
        <source>The pile</source>
        <translation>Der Stapel</translation>
    </message>
    <message>
        <source>Frames</source>
        <translation>Aufnahmen</translation>
    </message>
    <message>
        <source>Views</source>
        <translation>Ansichten</translation>
    </message>
    <message>
        <source>On the picture</source>
        <translation>Auf dem Bild</translation>
    </message>
    <message>
        <source>The brush</source>
        <translation>Der Pinsel</translation>
    </message>
    <message>
        <source>Placing by hand</source>
        <translation>Von Hand legen</translation>
    </message>
    <message>
        <source>The window</source>
        <translation>Das Fenster</translation>
    </message>
    <message>
        <source>%1 (%2)</source>
        <translation>%1 (%2)</translation>
    </message>
    <message>
        <source>Open</source>
        <translation>Öffnen</translation>
    </message>
    <message>
        <source>Opens frames or a pile</source>
        <translation>Öffnet Aufnahmen oder einen Stapel</translation>
    </message>
    <message>
        <source>Open a folder</source>
        <translation>Ordner öffnen</translation>
    </message>
    <message>
        <source>Opens all pictures in a folder</source>
        <translation>Öffnet alle Bilder in einem Ordner</translation>
    </message>
    <message>
        <source>Like a pile</source>
        <translation>Wie ein Stapel</translation>
    </message>
    <message>
        <source>Opens frames with the settings of a pile that was saved: what is its own frames&apos; alone is not taken</source>
        <translation>Öffnet Aufnahmen mit den Einstellungen eines gesicherten Stapels: was nur seinen Aufnahmen gehört, kommt nicht mit</translation>
    </message>
    <message>
        <source>Save</source>
        <translation>Sichern</translation>
    </message>
    <message>
        <source>Saves the pile</source>
        <translation>Sichert den Stapel</translation>
    </message>
    <message>
        <source>Save under a name</source>
        <translation>Unter einem Namen sichern</translation>
    </message>
    <message>
        <source>Saves the pile under another name</source>
        <translation>Sichert den Stapel unter einem anderen Namen</translation>
    </message>
    <message>
        <source>Export</source>
        <translation>Ausgabe</translation>
    </message>
    <message>
        <source>Opens the Export step, where format and place are chosen</source>
        <translation>Öffnet den Schritt Ausgabe, wo Format und Ort gewählt werden</translation>
    </message>
    <message>
        <source>Export as last time</source>
        <translation>Ausgeben wie zuletzt</translation>
    </message>
    <message>
        <source>Asks for a place and a name, and writes the picture as the Export step has it</source>
        <translation>Fragt nach Ort und Namen und schreibt das Bild, wie der Schritt Ausgabe es hat</translation>
    </message>
    <message>
        <source>Undo</source>
        <translation>Rückgängig</translation>
    </message>
    <message>
        <source>Takes the last step back</source>
        <translation>Nimmt den letzten Schritt zurück</translation>
    </message>
    <message>
        <source>Redo</source>
        <translation>Wiederholen</translation>
    </message>
    <message>
        <source>Does again what was taken back</source>
        <translation>Tut wieder, was zurückgenommen wurde</translation>
    </message>
    <message>
        <source>What was done</source>
        <translation>Was getan wurde</translation>
    </message>
    <message>
        <source>Lists the edits of this pile, to go back to one or on to it</source>
        <translation>Listet die Änderungen dieses Stapels, um zu einer zurück- oder vorzugehen</translation>
    </message>
    <message>
        <source>Frame before</source>
        <translation>Aufnahme davor</translation>
    </message>
    <message>
        <source>Flips to the frame before</source>
        <translation>Blättert zur Aufnahme davor</translation>
    </message>
    <message>
        <source>Next frame</source>
        <translation>Nächste Aufnahme</translation>
    </message>
    <message>
        <source>Flips to the next frame</source>
        <translation>Blättert zur nächsten Aufnahme</translation>
    </message>
    <message>
        <source>Select back</source>
        <translation>Rückwärts wählen</translation>
    </message>
    <message>
        <source>Selects the frame before, too</source>
        <translation>Wählt auch die Aufnahme davor</translation>
    </message>
    <message>
        <source>Select on</source>
        <translation>Vorwärts wählen</translation>
    </message>
    <message>
        <source>Selects the next frame, too</source>
        <translation>Wählt auch die nächste Aufnahme</translation>
    </message>
    <message>
        <source>Select all</source>
        <translation>Alle wählen</translation>
    </message>
    <message>
        <source>Selects all frames</source>
        <translation>Wählt alle Aufnahmen</translation>
    </message>
    <message>
        <source>Select the others</source>
        <translation>Die anderen wählen</translation>
    </message>
    <message>
        <source>Selects the frames that are not selected, in place of those that are</source>
        <translation>Wählt die Aufnahmen, die nicht gewählt sind, statt der gewählten</translation>
    </message>
    <message>
        <source>Set aside, take back</source>
        <translation>Beiseitelegen, zurückholen</translation>
    </message>
    <message>
        <source>Leaves the selected frames out of the picture without forgetting them, or lets them in again</source>
        <translation>Lässt die gewählten Aufnahmen aus dem Bild, ohne sie zu vergessen, oder nimmt sie wieder</translation>
    </message>
    <message>
        <source>Remove</source>
        <translation>Entfernen</translation>
    </message>
    <message>
        <source>Takes the selected frames out of this pile, or the chosen part or place while their list has the focus; files stay where they are</source>
        <translation>Nimmt die gewählten Aufnahmen aus diesem Stapel, oder das gewählte Teil oder die Stelle, während ihre Liste den Fokus hat; Dateien bleiben, wo sie sind</translation>
    </message>
    <message>
        <source>Order by time</source>
        <translation>Nach Zeit ordnen</translation>
    </message>
    <message>
        <source>Puts the frames in the order in which they were taken</source>
        <translation>Bringt die Aufnahmen in die Reihenfolge, in der sie entstanden</translation>
    </message>
    <message>
        <source>Order by name</source>
        <translation>Nach Namen ordnen</translation>
    </message>
    <message>
        <source>Puts the frames in the order of their file names</source>
        <translation>Bringt die Aufnahmen in die Reihenfolge ihrer Dateinamen</translation>
    </message>
    <message>
        <source>Move to the front</source>
        <translation>Nach vorn</translation>
    </message>
    <message>
        <source>Puts the selected frames one place nearer to the first</source>
        <translation>Bringt die gewählten Aufnahmen einen Platz näher an die erste</translation>
    </message>
    <message>
        <source>Move to the back</source>
        <translation>Nach hinten</translation>
    </message>
    <message>
        <source>Puts the selected frames one place nearer to the last</source>
        <translation>Bringt die gewählten Aufnahmen einen Platz näher an die letzte</translation>
    </message>
    <message>
        <source>First frame</source>
        <translation>Erste Aufnahme</translation>
    </message>
    <message>
        <source>On the time rail</source>
        <translation>Auf der Zeitleiste</translation>
    </message>
    <message>
        <source>Last frame</source>
        <translation>Letzte Aufnahme</translation>
    </message>
    <message>
        <source>Ten frames back</source>
        <translation>Zehn Aufnahmen zurück</translation>
    </message>
    <message>
        <source>Ten frames on</source>
        <translation>Zehn Aufnahmen weiter</translation>
    </message>
    <message>
        <source>Select to the first</source>
        <translation>Bis zur ersten wählen</translation>
    </message>
    <message>
        <source>Select to the last</source>
        <translation>Bis zur letzten wählen</translation>
    </message>
    <message>
        <source>Select ten back</source>
        <translation>Zehn zurück wählen</translation>
    </message>
    <message>
        <source>Select ten on</source>
        <translation>Zehn weiter wählen</translation>
    </message>
    <message>
        <source>Widen the time rail</source>
        <translation>Zeitleiste weiten</translation>
    </message>
    <message>
        <source>Narrow the time rail</source>
        <translation>Zeitleiste verengen</translation>
    </message>
    <message>
        <source>Result</source>
        <translation>Ergebnis</translation>
    </message>
    <message>
        <source>Shows the picture</source>
        <translation>Zeigt das Bild</translation>
    </message>
    <message>
        <source>Frame</source>
        <translation>Aufnahme</translation>
    </message>
    <message>
        <source>Shows the chosen frame alone</source>
        <translation>Zeigt die gewählte Aufnahme allein</translation>
    </message>
    <message>
        <source>Difference</source>
        <translation>Differenz</translation>
    </message>
    <message>
        <source>Shows how the chosen frame differs from another, strengthened as chosen above the picture</source>
        <translation>Zeigt, wie die gewählte Aufnahme von einer anderen abweicht, verstärkt wie über dem Bild gewählt</translation>
    </message>
    <message>
        <source>Cover</source>
        <translation>Deckung</translation>
    </message>
    <message>
        <source>Shows where not every frame reaches: the fewer, the darker</source>
        <translation>Zeigt, wohin nicht jede Aufnahme reicht: je weniger, desto dunkler</translation>
    </message>
    <message>
        <source>Origins</source>
        <translation>Herkunft</translation>
    </message>
    <message>
        <source>Shows which frame each place comes from; a click goes to it</source>
        <translation>Zeigt, aus welcher Aufnahme jede Stelle kommt; ein Klick geht zu ihr</translation>
    </message>
    <message>
        <source>Flip</source>
        <translation>Umblättern</translation>
    </message>
    <message>
        <source>While it is held: from Result to Frame and back, or the right one of two pictures alone</source>
        <translation>Solange gehalten: von Ergebnis zu Aufnahme und zurück, oder nur das rechte von zwei Bildern</translation>
    </message>
    <message>
        <source>Before finishing</source>
        <translation>Vor dem Vollenden</translation>
    </message>
    <message>
        <source>While it is held: the picture as it is merged and laid over, before anything of Finish is done to it</source>
        <translation>Solange gehalten: das Bild, wie es vereint und belegt ist, bevor etwas vollendet wird</translation>
    </message>
    <message>
        <source>Hold the place</source>
        <translation>Stelle halten</translation>
    </message>
    <message>
        <source>While it is held in Parts: the rail keeps showing the place, and a click on a frame takes it from there, a click with Shift gives it back</source>
        <translation>Solange in Teile gehalten: die Leiste zeigt weiter die Stelle, ein Klick auf eine Aufnahme nimmt sie von dort, ein Klick mit Umschalt gibt sie zurück</translation>
    </message>
    <message>
        <source>As exported</source>
        <translation>Wie ausgegeben</translation>
    </message>
    <message>
        <source>Shows the result in the profile of the export, with colours that it cannot hold hatched, and back</source>
        <translation>Zeigt das Ergebnis im Profil der Ausgabe, Farben, die es nicht fasst, schraffiert, und zurück</translation>
    </message>
    <message>
        <source>Play</source>
        <translation>Abspielen</translation>
    </message>
    <message>
        <source>Shows the frames one after the other</source>
        <translation>Zeigt die Aufnahmen nacheinander</translation>
    </message>
    <message>
        <source>Side by side</source>
        <translation>Nebeneinander</translation>
    </message>
    <message>
        <source>Shows two pictures behind one divider, which can be dragged</source>
        <translation>Zeigt zwei Bilder hinter einem Teiler, der sich ziehen lässt</translation>
    </message>
    <message>
        <source>Hold this frame</source>
        <translation>Diese Aufnahme halten</translation>
    </message>
    <message>
        <source>Keeps this frame on the right, to hold others against it; the settings of the merge where these are compared</source>
        <translation>Behält diese Aufnahme rechts, um andere dagegenzuhalten; die Einstellungen des Vereinens, wo diese verglichen werden</translation>
    </message>
    <message>
        <source>Divider left</source>
        <translation>Teiler nach links</translation>
    </message>
    <message>
        <source>Moves the divider between two pictures to the left</source>
        <translation>Bewegt den Teiler zwischen zwei Bildern nach links</translation>
    </message>
    <message>
        <source>Divider right</source>
        <translation>Teiler nach rechts</translation>
    </message>
    <message>
        <source>Moves the divider between two pictures to the right</source>
        <translation>Bewegt den Teiler zwischen zwei Bildern nach rechts</translation>
    </message>
    <message>
        <source>Capture data</source>
        <translation>Aufnahmedaten</translation>
    </message>
    <message>
        <source>Shows how this frame was taken, and what differs across the run</source>
        <translation>Zeigt, wie diese Aufnahme entstand und was im Lauf verschieden ist</translation>
    </message>
    <message>
        <source>Plumb</source>
        <translation>Lot</translation>
    </message>
    <message>
        <source>Shows what every frame has at a point of the picture: click on it, or press Enter over it</source>
        <translation>Zeigt, was jede Aufnahme an einem Punkt des Bildes hat: Klick darauf, oder Eingabe darüber</translation>
    </message>
    <message>
        <source>Tones</source>
        <translation>Töne</translation>
    </message>
    <message>
        <source>Shows how much of what is seen is dark and bright, in all and by channel, or of an area that is chosen</source>
        <translation>Zeigt, wie viel von dem, was zu sehen ist, dunkel und hell ist, insgesamt und nach Kanälen, oder von einem gewählten Gebiet</translation>
    </message>
    <message>
        <source>Fit</source>
        <translation>Einpassen</translation>
    </message>
    <message>
        <source>Shows all of the picture</source>
        <translation>Zeigt das ganze Bild</translation>
    </message>
    <message>
        <source>Pixel by pixel</source>
        <translation>Pixel für Pixel</translation>
    </message>
    <message>
        <source>Shows every pixel of the picture as one of the screen</source>
        <translation>Zeigt jedes Pixel des Bildes als eines des Bildschirms</translation>
    </message>
    <message>
        <source>Twice as large</source>
        <translation>Doppelt so groß</translation>
    </message>
    <message>
        <source>Shows every pixel of the picture as two by two of the screen</source>
        <translation>Zeigt jedes Pixel des Bildes als zwei mal zwei des Bildschirms</translation>
    </message>
    <message>
        <source>Another size</source>
        <translation>Andere Größe</translation>
    </message>
    <message>
        <source>Opens the list of sizes, where one can be typed</source>
        <translation>Öffnet die Liste der Größen, wo eine eingetippt werden kann</translation>
    </message>
    <message>
        <source>Closer</source>
        <translation>Näher</translation>
    </message>
    <message>
        <source>Shows the picture larger</source>
        <translation>Zeigt das Bild größer</translation>
    </message>
    <message>
        <source>Further</source>
        <translation>Weiter weg</translation>
    </message>
    <message>
        <source>Shows the picture smaller</source>
        <translation>Zeigt das Bild kleiner</translation>
    </message>
    <message>
        <source>Look left</source>
        <translation>Nach links sehen</translation>
    </message>
    <message>
        <source>Moves the picture under the window</source>
        <translation>Bewegt das Bild unter dem Fenster</translation>
    </message>
    <message>
        <source>Look right</source>
        <translation>Nach rechts sehen</translation>
    </message>
    <message>
        <source>Look up</source>
        <translation>Nach oben sehen</translation>
    </message>
    <message>
        <source>Look down</source>
        <translation>Nach unten sehen</translation>
    </message>
    <message>
        <source>Mark left</source>
        <translation>Marke nach links</translation>
    </message>
    <message>
        <source>Moves a mark over the picture; with Shift by one pixel. Enter is the button there</source>
        <translation>Bewegt eine Marke über das Bild; mit Umschalt um ein Pixel. Eingabe ist dort die Maustaste</translation>
    </message>
    <message>
        <source>Mark right</source>
        <translation>Marke nach rechts</translation>
    </message>
    <message>
        <source>Mark up</source>
        <translation>Marke nach oben</translation>
    </message>
    <message>
        <source>Mark down</source>
        <translation>Marke nach unten</translation>
    </message>
    <message>
        <source>Leave</source>
        <translation>Verlassen</translation>
    </message>
    <message>
        <source>Leaves a stroke, a drag, what is tried out, a tool, a field: in this order</source>
        <translation>Verlässt einen Strich, ein Ziehen, ein Ausprobieren, ein Werkzeug, ein Feld: in dieser Reihenfolge</translation>
    </message>
    <message>
        <source>Keep or give back</source>
        <translation>Behalten oder zurückgeben</translation>
    </message>
    <message>
        <source>Changes what the brush does</source>
        <translation>Ändert, was der Pinsel tut</translation>
    </message>
    <message>
        <source>Smaller brush</source>
        <translation>Kleinerer Pinsel</translation>
    </message>
    <message>
        <source>Makes the brush, or the mark for spots, smaller</source>
        <translation>Macht den Pinsel oder die Marke für Flecken kleiner</translation>
    </message>
    <message>
        <source>Larger brush</source>
        <translation>Größerer Pinsel</translation>
    </message>
    <message>
        <source>Makes the brush, or the mark for spots, larger</source>
        <translation>Macht den Pinsel oder die Marke für Flecken größer</translation>
    </message>
    <message>
        <source>Left</source>
        <translation>Nach links</translation>
    </message>
    <message>
        <source>Moves the frame to the left</source>
        <translation>Bewegt die Aufnahme nach links</translation>
    </message>
    <message>
        <source>Right</source>
        <translation>Nach rechts</translation>
    </message>
    <message>
        <source>Moves the frame to the right</source>
        <translation>Bewegt die Aufnahme nach rechts</translation>
    </message>
    <message>
        <source>Up</source>
        <translation>Nach oben</translation>
    </message>
    <message>
        <source>Moves the frame up</source>
        <translation>Bewegt die Aufnahme nach oben</translation>
    </message>
    <message>
        <source>Down</source>
        <translation>Nach unten</translation>
    </message>
    <message>
        <source>Moves the frame down</source>
        <translation>Bewegt die Aufnahme nach unten</translation>
    </message>
    <message>
        <source>Turn −</source>
        <translation>Drehen −</translation>
    </message>
    <message>
        <source>Turns the frame against the clock about the pivot</source>
        <translation>Dreht die Aufnahme gegen den Uhrzeigersinn um den Drehpunkt</translation>
    </message>
    <message>
        <source>Turn +</source>
        <translation>Drehen +</translation>
    </message>
    <message>
        <source>Turns the frame with the clock about the pivot</source>
        <translation>Dreht die Aufnahme im Uhrzeigersinn um den Drehpunkt</translation>
    </message>
    <message>
        <source>Opens the step</source>
        <translation>Öffnet den Schritt</translation>
    </message>
    <message>
        <source>Even</source>
        <translation>Angleichen</translation>
    </message>
    <message>
        <source>Align</source>
        <translation>Ausrichten</translation>
    </message>
    <message>
        <source>Merge</source>
        <translation>Vereinen</translation>
    </message>
    <message>
        <source>Parts</source>
        <translation>Teile</translation>
    </message>
    <message>
        <source>Finish</source>
        <translation>Vollenden</translation>
    </message>
    <message>
        <source>Menu</source>
        <translation>Menü</translation>
    </message>
    <message>
        <source>Lists all that can be done, with its keys</source>
        <translation>Listet alles, was sich tun lässt, mit seinen Tasten</translation>
    </message>
    <message>
        <source>Full screen</source>
        <translation>Vollbild</translation>
    </message>
    <message>
        <source>Fills the screen with the window, and back</source>
        <translation>Füllt den Bildschirm mit dem Fenster, und zurück</translation>
    </message>
    <message>
        <source>Steps away</source>
        <translation>Schritte weg</translation>
    </message>
    <message>
        <source>Takes the steps away, so that the picture has their room, or brings them back</source>
        <translation>Nimmt die Schritte weg, damit das Bild ihren Platz hat, oder bringt sie zurück</translation>
    </message>
    <message>
        <source>Rail away</source>
        <translation>Leiste weg</translation>
    </message>
    <message>
        <source>Takes the time rail away, so that the picture has its room, or brings it back</source>
        <translation>Nimmt die Zeitleiste weg, damit das Bild ihren Platz hat, oder bringt sie zurück</translation>
    </message>
    <message>
        <source>Preferences</source>
        <translation>Einstellungen</translation>
    </message>
    <message>
        <source>Theme, room for memory and working files, the display, sizes</source>
        <translation>Thema, Platz für Speicher und Arbeitsdateien, der Bildschirm, Größen</translation>
    </message>
    <message>
        <source>Dusk or Noon</source>
        <translation>Dämmerung oder Mittag</translation>
    </message>
    <message>
        <source>Makes the window dark or light</source>
        <translation>Macht das Fenster dunkel oder hell</translation>
    </message>
    <message>
        <source>Guide</source>
        <translation>Handbuch</translation>
    </message>
    <message>
        <source>Opens the guide at what is being done</source>
        <translation>Öffnet das Handbuch bei dem, was gerade getan wird</translation>
    </message>
    <message>
        <source>Keys</source>
        <translation>Tasten</translation>
    </message>
    <message>
        <source>Shows what every key does</source>
        <translation>Zeigt, was jede Taste tut</translation>
    </message>
    <message>
        <source>Quit</source>
        <translation>Beenden</translation>
    </message>
    <message>
        <source>Ends the program</source>
        <translation>Beendet das Programm</translation>
    </message>
</context>
<context>
    <name>Traces</name>
    <message>
        <source>Sharp</source>
        <translation>Scharf</translation>
    </message>
    <message>
        <source>Fine contrast against the reference: soft and shaken frames dip</source>
        <translation>Feiner Kontrast gegen die Referenz: weiche und verwackelte Aufnahmen sinken ab</translation>
    </message>
    <message>
        <source>Moved</source>
        <translation>Bewegt</translation>
    </message>
    <message>
        <source>How far the picture&apos;s middle lies from where the reference has it</source>
        <translation>Wie weit die Bildmitte von dort liegt, wo die Referenz sie hat</translation>
    </message>
    <message>
        <source>%1 px</source>
        <translation>%1 px</translation>
    </message>
    <message>
        <source>Light</source>
        <translation>Licht</translation>
    </message>
    <message>
        <source>Light against the reference, unmoved by what moves</source>
        <translation>Licht gegen die Referenz, unbewegt von dem, was sich bewegt</translation>
    </message>
    <message>
        <source>%1 EV</source>
        <translation>%1 EV</translation>
    </message>
    <message>
        <source>Cloud</source>
        <translation>Wolken</translation>
    </message>
    <message>
        <source>Share of the picture whose light changed smoothly: thin cloud, haze</source>
        <translation>Anteil des Bildes, dessen Licht sich sanft änderte: dünne Wolken, Dunst</translation>
    </message>
    <message>
        <source>Turned</source>
        <translation>Gedreht</translation>
    </message>
    <message>
        <source>Degrees against the reference</source>
        <translation>Grad gegen die Referenz</translation>
    </message>
    <message>
        <source>%1°</source>
        <translation>%1°</translation>
    </message>
    <message>
        <source>Warmth</source>
        <translation>Wärme</translation>
    </message>
    <message>
        <source>Red over blue against the reference</source>
        <translation>Rot zu Blau gegen die Referenz</translation>
    </message>
    <message>
        <source>Noise</source>
        <translation>Rauschen</translation>
    </message>
    <message>
        <source>Deviation in the flat places of the small picture</source>
        <translation>Abweichung an glatten Stellen des kleinen Bildes</translation>
    </message>
    <message>
        <source>White</source>
        <translation>Weiß</translation>
    </message>
    <message>
        <source>Share of pixels that are clipped at white</source>
        <translation>Anteil der Pixel, die bei Weiß beschnitten sind</translation>
    </message>
    <message>
        <source>Pause</source>
        <translation>Pause</translation>
    </message>
    <message>
        <source>Time without light since the frame before</source>
        <translation>Zeit ohne Licht seit der Aufnahme davor</translation>
    </message>
    <message>
        <source>%1 s</source>
        <translation>%1 s</translation>
    </message>
    <message>
        <source>Left over</source>
        <translation>Rest</translation>
    </message>
    <message>
        <source>What is left between the frame and the reference after aligning</source>
        <translation>Was nach dem Ausrichten zwischen Aufnahme und Referenz übrig ist</translation>
    </message>
    <message>
        <source>Sure</source>
        <translation>Sicher</translation>
    </message>
    <message>
        <source>Share of the textured places, or of the stars, that agree after aligning</source>
        <translation>Anteil der Stellen mit Struktur, oder der Sterne, die nach dem Ausrichten übereinstimmen</translation>
    </message>
    <message>
        <source>Scale</source>
        <translation>Maßstab</translation>
    </message>
    <message>
        <source>How much larger or smaller aligning makes the frame</source>
        <translation>Wie viel größer oder kleiner das Ausrichten die Aufnahme macht</translation>
    </message>
    <message>
        <source>Level</source>
        <translation>Pegel</translation>
    </message>
    <message>
        <source>How much brighter or darker levelling makes the frame</source>
        <translation>Wie viel heller oder dunkler das Angleichen die Aufnahme macht</translation>
    </message>
    <message>
        <source>moved %1 px</source>
        <translation>%1 px bewegt</translation>
    </message>
    <message>
        <source>moved %1 px from here on</source>
        <translation>von hier an %1 px bewegt</translation>
    </message>
    <message>
        <source>turned by %1°</source>
        <translation>um %1° gedreht</translation>
    </message>
    <message>
        <source>softer than its neighbours</source>
        <translation>weicher als ihre Nachbarn</translation>
    </message>
    <message>
        <source>thin cloud</source>
        <translation>dünne Wolken</translation>
    </message>
    <message>
        <source>light changed over %1% of the picture</source>
        <translation>Licht auf %1&#xa0;% des Bildes geändert</translation>
    </message>
    <message>
        <source>%1 EV brighter</source>
        <translation>%1 EV heller</translation>
    </message>
    <message>
        <source>%1 EV darker</source>
        <translation>%1 EV dunkler</translation>
    </message>
    <message>
        <source>%1 EV warmer</source>
        <translation>%1 EV wärmer</translation>
    </message>
    <message>
        <source>%1 EV cooler</source>
        <translation>%1 EV kühler</translation>
    </message>
    <message>
        <source>%1 s late</source>
        <translation>%1 s zu spät</translation>
    </message>
    <message>
        <source>%1%</source>
        <translation>%1&#xa0;%</translation>
    </message>
    <message>
        <source>%1 late</source>
        <translation>%1 zu spät</translation>
    </message>
</context>
<context>
    <name>Words</name>
    <message>
        <source>Lighten</source>
        <translation>Aufhellen</translation>
    </message>
    <message>
        <source>Maximum</source>
        <translation>Maximum</translation>
    </message>
    <message>
        <source>Minimum</source>
        <translation>Minimum</translation>
    </message>
    <message>
        <source>Median</source>
        <translation>Median</translation>
    </message>
    <message>
        <source>Mean</source>
        <translation>Mittel</translation>
    </message>
    <message>
        <source>Clipped mean</source>
        <translation>Ohne Ausreißer</translation>
    </message>
    <message>
        <source>Add light</source>
        <translation>Licht addieren</translation>
    </message>
    <message>
        <source>One frame</source>
        <translation>Eine Aufnahme</translation>
    </message>
    <message>
        <source>Old end</source>
        <translation>Altes Ende</translation>
    </message>
    <message>
        <source>New end</source>
        <translation>Neues Ende</translation>
    </message>
    <message>
        <source>Both</source>
        <translation>Beide</translation>
    </message>
    <message>
        <source>Nowhere</source>
        <translation>Nirgends</translation>
    </message>
    <message>
        <source>Where the lights were first, trails are faint, and grow to where they were last</source>
        <translation>Wo die Lichter zuerst waren, sind die Spuren schwach und wachsen bis dorthin, wo sie zuletzt waren</translation>
    </message>
    <message>
        <source>Where the lights were last, trails are faint</source>
        <translation>Wo die Lichter zuletzt waren, sind die Spuren schwach</translation>
    </message>
    <message>
        <source>Trails are faint at both ends and full between them</source>
        <translation>Die Spuren sind an beiden Enden schwach und dazwischen voll</translation>
    </message>
    <message>
        <source>Trails have their full light from end to end</source>
        <translation>Die Spuren haben von Ende zu Ende ihr volles Licht</translation>
    </message>
    <message>
        <source>The brightest frame wins at every pixel; each frame can have a strength of its own</source>
        <translation>An jedem Pixel gewinnt die hellste Aufnahme; jede kann ihre eigene Stärke haben</translation>
    </message>
    <message>
        <source>The brightest value of every pixel, all frames alike</source>
        <translation>Der hellste Wert jedes Pixels, alle Aufnahmen gleich</translation>
    </message>
    <message>
        <source>The darkest value of every pixel</source>
        <translation>Der dunkelste Wert jedes Pixels</translation>
    </message>
    <message>
        <source>The middle value of every pixel: what moves is gone</source>
        <translation>Der mittlere Wert jedes Pixels: was sich bewegt, ist weg</translation>
    </message>
    <message>
        <source>The mean light of every pixel: less noise, and what moves turns into a veil</source>
        <translation>Das mittlere Licht jedes Pixels: weniger Rauschen, und was sich bewegt, wird zum Schleier</translation>
    </message>
    <message>
        <source>The mean light without what stands apart: less noise, and what moves is gone</source>
        <translation>Das mittlere Licht ohne das, was abweicht: weniger Rauschen, und was sich bewegt, ist weg</translation>
    </message>
    <message>
        <source>The light of all frames together, as one long exposure would have it; what is more than white is white</source>
        <translation>Das Licht aller Aufnahmen zusammen, wie es eine lange Belichtung hätte; was mehr als weiß ist, ist weiß</translation>
    </message>
    <message>
        <source>One frame as it is, for parts to lie over</source>
        <translation>Eine Aufnahme, wie sie ist, damit Teile darüberliegen</translation>
    </message>
    <message>
        <source>None</source>
        <translation>Keines</translation>
    </message>
    <message>
        <source>Shift</source>
        <translation>Schieben</translation>
    </message>
    <message>
        <source>Shift, turn</source>
        <translation>Schieben, drehen</translation>
    </message>
    <message>
        <source>And scale</source>
        <translation>Und vergrößern</translation>
    </message>
    <message>
        <source>Perspective</source>
        <translation>Perspektive</translation>
    </message>
    <message>
        <source>Flex</source>
        <translation>Biegen</translation>
    </message>
    <message>
        <source>Stars</source>
        <translation>Sterne</translation>
    </message>
    <message>
        <source>Frames stay where they are: a firm tripod</source>
        <translation>Die Aufnahmen bleiben, wo sie sind: ein festes Stativ</translation>
    </message>
    <message>
        <source>Frames are moved onto the reference</source>
        <translation>Die Aufnahmen werden auf die Referenz geschoben</translation>
    </message>
    <message>
        <source>Frames are moved and turned onto the reference: hand-held bursts</source>
        <translation>Die Aufnahmen werden auf die Referenz geschoben und gedreht: Serien aus der Hand</translation>
    </message>
    <message>
        <source>Frames are moved, turned and scaled onto the reference: focus or distance changed a little</source>
        <translation>Die Aufnahmen werden geschoben, gedreht und vergrößert: Fokus oder Abstand haben sich etwas geändert</translation>
    </message>
    <message>
        <source>Frames are moved as a flat scene seen from elsewhere</source>
        <translation>Die Aufnahmen werden bewegt wie eine flache Szene, von anderswo gesehen</translation>
    </message>
    <message>
        <source>Bends locally and smoothly, for hand-held depth and moving air</source>
        <translation>Biegt örtlich und sanft, für Tiefe aus der Hand und bewegte Luft</translation>
    </message>
    <message>
        <source>Frames are turned with the sky about its pole, as the lens bends it; the land moves instead</source>
        <translation>Die Aufnahmen werden mit dem Himmel um seinen Pol gedreht, wie das Objektiv ihn biegt; dafür bewegt sich das Land</translation>
    </message>
    <message>
        <source>Off</source>
        <translation>Aus</translation>
    </message>
    <message>
        <source>Light</source>
        <translation>Licht</translation>
    </message>
    <message>
        <source>And colour</source>
        <translation>Und Farbe</translation>
    </message>
    <message>
        <source>Frames keep the light they were taken in</source>
        <translation>Die Aufnahmen behalten das Licht, in dem sie entstanden</translation>
    </message>
    <message>
        <source>Every frame gets the light of the reference; what moves does not count</source>
        <translation>Jede Aufnahme bekommt das Licht der Referenz; was sich bewegt, zählt nicht</translation>
    </message>
    <message>
        <source>Every frame gets the light and the colour of the reference</source>
        <translation>Jede Aufnahme bekommt Licht und Farbe der Referenz</translation>
    </message>
    <message>
        <source>Exposure</source>
        <translation>Belichtung</translation>
    </message>
    <message>
        <source>Twice as much light with every EV</source>
        <translation>Doppelt so viel Licht mit jedem EV</translation>
    </message>
    <message>
        <source>Contrast</source>
        <translation>Kontrast</translation>
    </message>
    <message>
        <source>Draws the tones apart about the middle, or together</source>
        <translation>Zieht die Töne um die Mitte auseinander oder zusammen</translation>
    </message>
    <message>
        <source>Floor</source>
        <translation>Boden</translation>
    </message>
    <message>
        <source>What is darker becomes black, softly: bursts of light stay clean where they add up</source>
        <translation>Was dunkler ist, wird sanft schwarz: Lichtblitze bleiben sauber, wo sie sich addieren</translation>
    </message>
    <message>
        <source>Deep</source>
        <translation>Tief</translation>
    </message>
    <message>
        <source>Opens the dark tones, or deepens them</source>
        <translation>Öffnet die dunklen Töne oder vertieft sie</translation>
    </message>
    <message>
        <source>Middle</source>
        <translation>Mitte</translation>
    </message>
    <message>
        <source>Makes the tones in the middle brighter or darker</source>
        <translation>Macht die Töne in der Mitte heller oder dunkler</translation>
    </message>
    <message>
        <source>Bright</source>
        <translation>Hell</translation>
    </message>
    <message>
        <source>Below nothing bright tones are held back, also what exposure lifted beyond white</source>
        <translation>Unter null werden helle Töne gehalten, auch was die Belichtung über Weiß hob</translation>
    </message>
    <message>
        <source>Peak</source>
        <translation>Gipfel</translation>
    </message>
    <message>
        <source>Above nothing darker tones become white already, softly; below, white comes later</source>
        <translation>Über null werden dunklere Töne schon weiß, sanft; darunter kommt Weiß später</translation>
    </message>
    <message>
        <source>Warmth</source>
        <translation>Wärme</translation>
    </message>
    <message>
        <source>Warmer above nothing, cooler below</source>
        <translation>Über null wärmer, darunter kühler</translation>
    </message>
    <message>
        <source>Green to magenta</source>
        <translation>Grün zu Magenta</translation>
    </message>
    <message>
        <source>Towards magenta above nothing, towards green below</source>
        <translation>Über null zu Magenta, darunter zu Grün</translation>
    </message>
    <message>
        <source>Colour strength</source>
        <translation>Farbkraft</translation>
    </message>
    <message>
        <source>Draws all colours away from grey, or towards it</source>
        <translation>Zieht alle Farben vom Grau weg oder zu ihm hin</translation>
    </message>
    <message>
        <source>Pale colours</source>
        <translation>Blasse Farben</translation>
    </message>
    <message>
        <source>The same for what has little colour</source>
        <translation>Dasselbe für das, was wenig Farbe hat</translation>
    </message>
    <message>
        <source>Range of hues</source>
        <translation>Bereich von Farbtönen</translation>
    </message>
    <message>
        <source>Which colours are turned, in degrees: 0 red, 120 green, 240 blue</source>
        <translation>Welche Farben gedreht werden, in Grad: 0 Rot, 120 Grün, 240 Blau</translation>
    </message>
    <message>
        <source>Turn of hues</source>
        <translation>Drehung der Farben</translation>
    </message>
    <message>
        <source>By how many degrees these colours are turned</source>
        <translation>Um wie viel Grad diese Farben gedreht werden</translation>
    </message>
    <message>
        <source>Green</source>
        <translation>Grün</translation>
    </message>
    <message>
        <source>Range</source>
        <translation>Umfang</translation>
    </message>
    <message>
        <source>Turn</source>
        <translation>Kippen</translation>
    </message>
    <message>
        <source>%1 EV</source>
        <translation>%1 EV</translation>
    </message>
    <message>
        <source>Trails</source>
        <translation>Spuren</translation>
    </message>
    <message>
        <source>Clear</source>
        <translation>Frei</translation>
    </message>
    <message>
        <source>Quiet</source>
        <translation>Ruhig</translation>
    </message>
    <message>
        <source>Sequence</source>
        <translation>Folge</translation>
    </message>
    <message>
        <source>Best of</source>
        <translation>Beste Teile</translation>
    </message>
    <message>
        <source>Shower</source>
        <translation>Schauer</translation>
    </message>
    <message>
        <source>Moving lights draw lines</source>
        <translation>Bewegte Lichter zeichnen Linien</translation>
    </message>
    <message>
        <source>What moves is gone</source>
        <translation>Was sich bewegt, ist weg</translation>
    </message>
    <message>
        <source>The same view, far less noise</source>
        <translation>Dieselbe Sicht, viel weniger Rauschen</translation>
    </message>
    <message>
        <source>One subject in many places</source>
        <translation>Ein Motiv an vielen Orten</translation>
    </message>
    <message>
        <source>The best part of each frame</source>
        <translation>Das Beste jeder Aufnahme</translation>
    </message>
    <message>
        <source>Many brief lights, each from its own frame</source>
        <translation>Viele kurze Lichter, jedes aus seiner Aufnahme</translation>
    </message>
    <message>
        <source>Dark</source>
        <translation>Dunkelbild</translation>
    </message>
    <message>
        <source>Foreground</source>
        <translation>Vordergrund</translation>
    </message>
    <message>
        <source>Scene</source>
        <translation>Szene</translation>
    </message>
    <message>
        <source>%1 in</source>
        <translation>%1 dabei</translation>
    </message>
    <message>
        <source>%1 aside</source>
        <translation>%1 beiseite</translation>
    </message>
    <message>
        <source>%1 dark</source>
        <translation>%1 dunkel</translation>
    </message>
    <message>
        <source>%1 foreground</source>
        <translation>%1 Vordergrund</translation>
    </message>
    <message>
        <source>%1 of no use</source>
        <translation>%1 unbrauchbar</translation>
    </message>
    <message>
        <source>%1 min</source>
        <translation>%1 min</translation>
    </message>
    <message>
        <source>%1 s</source>
        <translation>%1 s</translation>
    </message>
    <message>
        <source>1/%1 s</source>
        <translation>1/%1 s</translation>
    </message>
    <message>
        <source>Aircraft</source>
        <translation>Flugzeug</translation>
    </message>
    <message>
        <source>Satellite</source>
        <translation>Satellit</translation>
    </message>
    <message>
        <source>Meteor</source>
        <translation>Meteor</translation>
    </message>
    <message>
        <source>%1 MB</source>
        <translation>%1 MB</translation>
    </message>
    <message>
        <source>%1 GB</source>
        <translation>%1 GB</translation>
    </message>
    <message>
        <source>Pictures, clips and piles (*.pile %1 %2)</source>
        <translation>Bilder, Filme und Stapel (*.pile %1 %2)</translation>
    </message>
    <message>
        <source>Pictures (%1)</source>
        <translation>Bilder (%1)</translation>
    </message>
    <message>
        <source>Clips (%1)</source>
        <translation>Filme (%1)</translation>
    </message>
    <message>
        <source>Part %1</source>
        <translation>Teil %1</translation>
    </message>
    <message>
        <source>Subject %1, frame %2</source>
        <translation>Motiv %1, Aufnahme %2</translation>
    </message>
    <message>
        <source>Meteor, frame %1</source>
        <translation>Meteor, Aufnahme %1</translation>
    </message>
    <message>
        <source>Light, frame %1</source>
        <translation>Licht, Aufnahme %1</translation>
    </message>
    <message>
        <source>Edge as painted</source>
        <translation>Rand wie gemalt</translation>
    </message>
    <message>
        <source>Least seam</source>
        <translation>Geringste Naht</translation>
    </message>
    <message>
        <source>Blended</source>
        <translation>Überblendet</translation>
    </message>
    <message>
        <source>Pixels</source>
        <translation>Pixel</translation>
    </message>
    <message>
        <source>Millimetres</source>
        <translation>Millimeter</translation>
    </message>
    <message>
        <source>Inches</source>
        <translation>Zoll</translation>
    </message>
    <message>
        <source>Lay over</source>
        <translation>Darüberlegen</translation>
    </message>
    <message>
        <source>Lighter wins</source>
        <translation>Helleres gewinnt</translation>
    </message>
    <message>
        <source>Darker wins</source>
        <translation>Dunkleres gewinnt</translation>
    </message>
    <message>
        <source>small</source>
        <extracomment>Not shown. &quot;small&quot; where words such as Lighten or Meteor begin with a small letter within a sentence; &quot;kept&quot; where they keep the letter they begin with.</extracomment>
        <translation>kept</translation>
    </message>
    <message>
        <source>%1 h</source>
        <translation>%1 h</translation>
    </message>
    <message>
        <source>%1 h %2 min</source>
        <translation>%1 h %2 min</translation>
    </message>
</context>
<context>
    <name>bp::app::AlignCover</name>
    <message>
        <source>Crop to full cover</source>
        <translation>Auf volle Deckung beschneiden</translation>
    </message>
    <message>
        <source>Cuts off the edges that not every frame reaches, and follows when frames move</source>
        <translation>Schneidet Ränder ab, die nicht jede Aufnahme erreicht, und folgt, wenn Aufnahmen sich bewegen</translation>
    </message>
    <message>
        <source>Do not crop</source>
        <translation>Nicht beschneiden</translation>
    </message>
    <message>
        <source>No area is reached by every frame.</source>
        <translation>Keine Fläche wird von jeder Aufnahme erreicht.</translation>
    </message>
    <message>
        <source>Every frame reaches %1 x %2 px.</source>
        <translation>Jede Aufnahme erreicht %1 x %2 px.</translation>
    </message>
    <message>
        <source>The picture keeps %1% of the canvas. Drag its edges in the Cover view.</source>
        <translation>Das Bild behält %1&#xa0;% der Fläche. Seine Kanten lassen sich in der Ansicht Deckung ziehen.</translation>
    </message>
</context>
<context>
    <name>bp::app::AlignHand</name>
    <message>
        <source>the frame</source>
        <translation>die Aufnahme</translation>
    </message>
    <message>
        <source>Flicker</source>
        <translation>Wechseln</translation>
    </message>
    <message>
        <source>Shows the frame and the reference in turn</source>
        <translation>Zeigt abwechselnd die Aufnahme und die Referenz</translation>
    </message>
    <message>
        <source>Refine from here</source>
        <translation>Von hier aus verfeinern</translation>
    </message>
    <message>
        <source>Aligns the frame exactly, beginning from where it lies now</source>
        <translation>Richtet die Aufnahme genau aus und beginnt, wo sie jetzt liegt</translation>
    </message>
    <message>
        <source>%1 px</source>
        <translation>%1 px</translation>
    </message>
    <message>
        <source>How far one step moves the frame</source>
        <translation>Wie weit ein Schritt die Aufnahme bewegt</translation>
    </message>
    <message>
        <source>Turn frame %1</source>
        <translation>Aufnahme %1 drehen</translation>
    </message>
    <message>
        <source>Move frame %1</source>
        <translation>Aufnahme %1 bewegen</translation>
    </message>
    <message>
        <source>Place frame %1</source>
        <translation>Aufnahme %1 legen</translation>
    </message>
    <message>
        <source>Frame %1: drag it, turn it by the ring, scale it by the knot. The cross can be moved.</source>
        <translation>Aufnahme %1: ziehen, am Ring drehen, am Knoten vergrößern. Das Kreuz lässt sich versetzen.</translation>
    </message>
    <message>
        <source>Choose a frame that is not the reference.</source>
        <translation>Wähle eine Aufnahme, die nicht die Referenz ist.</translation>
    </message>
</context>
<context>
    <name>bp::app::AlignPlace</name>
    <message>
        <source>Paint where aligning looks</source>
        <translation>Malen, wo ausgerichtet wird</translation>
    </message>
    <message>
        <source>Merge this frame all the same</source>
        <translation>Diese Aufnahme trotzdem vereinen</translation>
    </message>
    <message>
        <source>The frame could not be aligned. It is merged where it lies</source>
        <translation>Die Aufnahme ließ sich nicht ausrichten. Sie wird vereint, wo sie liegt</translation>
    </message>
    <message>
        <source>Make this frame the reference</source>
        <translation>Diese Aufnahme zur Referenz machen</translation>
    </message>
    <message>
        <source>The others are laid over the frame that is looked at</source>
        <translation>Die anderen werden über die betrachtete Aufnahme gelegt</translation>
    </message>
    <message>
        <source>Table of the frames</source>
        <translation>Tabelle der Aufnahmen</translation>
    </message>
    <message>
        <source>How far every frame was moved, turned and scaled, what is left over, how sure it is</source>
        <translation>Wie weit jede Aufnahme bewegt, gedreht und vergrößert wurde, was übrig bleibt, wie sicher es ist</translation>
    </message>
    <message>
        <source>Merge frame %1 all the same</source>
        <translation>Aufnahme %1 trotzdem vereinen</translation>
    </message>
    <message>
        <source>Leave out frame %1</source>
        <translation>Aufnahme %1 weglassen</translation>
    </message>
    <message>
        <source>Where to look</source>
        <translation>Wo ausgerichtet wird</translation>
    </message>
    <message>
        <source>Paint over what stands still: aligning looks there alone, so that waves or clouds do not pull</source>
        <translation>Übermale, was stillsteht: nur dort wird ausgerichtet, damit Wellen oder Wolken nicht ziehen</translation>
    </message>
    <message>
        <source>Everywhere</source>
        <translation>Überall</translation>
    </message>
    <message>
        <source>Aligning looks at all of the picture</source>
        <translation>Ausgerichtet wird am ganzen Bild</translation>
    </message>
    <message>
        <source>Look here</source>
        <translation>Hier</translation>
    </message>
    <message>
        <source>Paints: aligning looks at what you paint over (K)</source>
        <translation>Malt: ausgerichtet wird an dem, was übermalt ist (K)</translation>
    </message>
    <message>
        <source>Not here</source>
        <translation>Hier nicht</translation>
    </message>
    <message>
        <source>Paints: aligning does not look at what you paint over (K)</source>
        <translation>Malt: an dem, was übermalt ist, wird nicht ausgerichtet (K)</translation>
    </message>
    <message>
        <source>Paint over what stands still, then choose a model again.</source>
        <translation>Übermale, was stillsteht, dann wähle noch einmal ein Modell.</translation>
    </message>
    <message>
        <source>Look everywhere</source>
        <translation>Überall ausrichten</translation>
    </message>
    <message>
        <source>Frame %1 could not be aligned and is merged all the same.</source>
        <translation>Aufnahme %1 ließ sich nicht ausrichten und wird trotzdem vereint.</translation>
    </message>
    <message>
        <source>Frame %1 could not be aligned and is left out.</source>
        <translation>Aufnahme %1 ließ sich nicht ausrichten und bleibt weg.</translation>
    </message>
    <message>
        <source>Frame %1: %2, %3 px, %4°</source>
        <translation>Aufnahme %1: %2; %3 px; %4°</translation>
    </message>
    <message>
        <source>scale %1</source>
        <translation>Maßstab %1</translation>
    </message>
    <message>
        <source>placed by hand</source>
        <translation>von Hand gelegt</translation>
    </message>
    <message>
        <source>placed by its time alone: too few stars</source>
        <translation>nur nach der Zeit gelegt: zu wenige Sterne</translation>
    </message>
    <message>
        <source>left over %1 px, sure to %2%</source>
        <translation>Rest %1 px, sicher zu %2&#xa0;%</translation>
    </message>
    <message>
        <source>Reference: frame %1</source>
        <translation>Referenz: Aufnahme %1</translation>
    </message>
    <message>
        <source>Pole of the sky at %1, %2</source>
        <translation>Himmelspol bei %1; %2</translation>
    </message>
    <message>
        <source>Picture %1 x %2 px</source>
        <translation>Bild %1 x %2 px</translation>
    </message>
</context>
<context>
    <name>bp::app::AlignStep</name>
    <message>
        <source>none</source>
        <translation>nicht</translation>
    </message>
    <message>
        <source>%1, worst %2 px</source>
        <translation>%1, höchstens %2 px</translation>
    </message>
    <message>
        <source>, %1 lost</source>
        <translation>, %1 verloren</translation>
    </message>
    <message>
        <source>Place</source>
        <translation>Lage</translation>
    </message>
    <message>
        <source>How the frames have moved</source>
        <translation>Wie sich die Aufnahmen bewegt haben</translation>
    </message>
    <message>
        <source>By hand</source>
        <translation>Von Hand</translation>
    </message>
    <message>
        <source>Moves one frame over the reference</source>
        <translation>Bewegt eine Aufnahme über der Referenz</translation>
    </message>
    <message>
        <source>Zones</source>
        <translation>Bereiche</translation>
    </message>
    <message>
        <source>Sky and land, each in its own way</source>
        <translation>Himmel und Land, jedes auf seine Weise</translation>
    </message>
    <message>
        <source>Cover</source>
        <translation>Deckung</translation>
    </message>
    <message>
        <source>Where not every frame reaches, and the crop</source>
        <translation>Wohin nicht jede Aufnahme reicht, und der Beschnitt</translation>
    </message>
    <message>
        <source>sky %1; land %2</source>
        <translation>Himmel %1; Land %2</translation>
    </message>
    <message>
        <source>Align</source>
        <translation>Ausrichten</translation>
    </message>
</context>
<context>
    <name>bp::app::AlignTable</name>
    <message>
        <source>reference</source>
        <translation>Referenz</translation>
    </message>
    <message>
        <source>lost, merged</source>
        <translation>verloren, vereint</translation>
    </message>
    <message>
        <source>lost</source>
        <translation>verloren</translation>
    </message>
    <message>
        <source>by hand</source>
        <translation>von Hand</translation>
    </message>
    <message>
        <source>by time</source>
        <translation>nach Zeit</translation>
    </message>
    <message>
        <source>aside</source>
        <translation>beiseite</translation>
    </message>
    <message>
        <source>How the frames lie</source>
        <translation>Wie die Aufnahmen liegen</translation>
    </message>
    <message>
        <source>Frame</source>
        <translation>Aufnahme</translation>
    </message>
    <message>
        <source>Across</source>
        <translation>Quer</translation>
    </message>
    <message>
        <source>Down</source>
        <translation>Hoch</translation>
    </message>
    <message>
        <source>Turn °</source>
        <translation>Drehung °</translation>
    </message>
    <message>
        <source>Scale</source>
        <translation>Maßstab</translation>
    </message>
    <message>
        <source>Rest</source>
        <translation>Rest</translation>
    </message>
    <message>
        <source>Sure %</source>
        <translation>Sicher %</translation>
    </message>
    <message>
        <source>State</source>
        <translation>Zustand</translation>
    </message>
    <message>
        <source>How far the middle of the frame was moved, in pixels</source>
        <translation>Wie weit die Mitte der Aufnahme bewegt wurde, in Pixeln</translation>
    </message>
    <message>
        <source>What is left between the frame and the reference after aligning, in pixels</source>
        <translation>Was nach dem Ausrichten zwischen Aufnahme und Referenz übrig ist, in Pixeln</translation>
    </message>
    <message>
        <source>Share of the textured places, or of the stars, that agree</source>
        <translation>Anteil der Stellen mit Struktur, oder der Sterne, die übereinstimmen</translation>
    </message>
</context>
<context>
    <name>bp::app::AlignZones</name>
    <message>
        <source>Paint sky</source>
        <translation>Himmel malen</translation>
    </message>
    <message>
        <source>Paint land</source>
        <translation>Land malen</translation>
    </message>
    <message>
        <source>Suggest sky</source>
        <translation>Himmel vorschlagen</translation>
    </message>
    <message>
        <source>Finds what turns with the stars and what stands still</source>
        <translation>Findet, was sich mit den Sternen dreht und was stillsteht</translation>
    </message>
    <message>
        <source>One zone</source>
        <translation>Ein Bereich</translation>
    </message>
    <message>
        <source>Aligns and merges all of the picture in one way again</source>
        <translation>Richtet wieder das ganze Bild auf eine Weise aus und vereint es so</translation>
    </message>
    <message>
        <source>Sky</source>
        <translation>Himmel</translation>
    </message>
    <message>
        <source>Paints: what you paint over is sky (K)</source>
        <translation>Malt: was übermalt ist, ist Himmel (K)</translation>
    </message>
    <message>
        <source>Land</source>
        <translation>Land</translation>
    </message>
    <message>
        <source>Paints: what you paint over is land (K)</source>
        <translation>Malt: was übermalt ist, ist Land (K)</translation>
    </message>
    <message>
        <source>%1 px</source>
        <translation>%1 px</translation>
    </message>
    <message>
        <source>Edges within</source>
        <translation>Kanten innerhalb</translation>
    </message>
    <message>
        <source>How far from the painted border its true place may be</source>
        <translation>Wie weit von der gemalten Grenze die wahre liegen darf</translation>
    </message>
    <message>
        <source>Snap to edges</source>
        <translation>An Kanten legen</translation>
    </message>
    <message>
        <source>Brings the border to roofs, masts and branches</source>
        <translation>Bringt die Grenze an Dächer, Masten und Zweige</translation>
    </message>
    <message>
        <source>Feather</source>
        <translation>Übergang</translation>
    </message>
    <message>
        <source>Width of the border in which sky and land go over into each other</source>
        <translation>Breite der Grenze, in der Himmel und Land ineinander übergehen</translation>
    </message>
    <message>
        <source>Sky: %1, %2. Land: %3, %4. Choose how under Place and in the Merge step.</source>
        <translation>Himmel: %1, %2. Land: %3, %4. Gewählt wird unter Lage und im Schritt Vereinen.</translation>
    </message>
    <message>
        <source>Paint roughly over the sky, or let it be suggested. Then each zone has its own align and merge.</source>
        <translation>Übermale den Himmel grob oder lass ihn vorschlagen. Dann hat jeder Bereich sein eigenes Ausrichten und Vereinen.</translation>
    </message>
</context>
<context>
    <name>bp::app::AllowancePanel</name>
    <message>
        <source>Room</source>
        <translation>Platz</translation>
    </message>
    <message>
        <source>Memory</source>
        <translation>Arbeitsspeicher</translation>
    </message>
    <message>
        <source>How much memory looking, merging and exporting may take. More keeps more frames at hand.</source>
        <translation>Wie viel Speicher Ansehen, Vereinen und Ausgeben nehmen dürfen. Mehr hält mehr Aufnahmen bereit.</translation>
    </message>
    <message>
        <source>Working files</source>
        <translation>Arbeitsdateien</translation>
    </message>
    <message>
        <source>How much disk frames at full size may take, so that going back to a place is instant. They vanish when the program ends.</source>
        <translation>Wie viel Platte Aufnahmen in voller Größe nehmen dürfen, damit man sofort an eine Stelle zurückkommt. Sie verschwinden mit dem Programm.</translation>
    </message>
    <message>
        <source>Kept now:
%1 of frames in memory
%2 of working files
%3 to open piles again sooner</source>
        <translation>Jetzt bereit:
%1 Aufnahmen im Speicher
%2 Arbeitsdateien
%3, um Stapel schneller wieder zu öffnen</translation>
    </message>
</context>
<context>
    <name>bp::app::Arriving</name>
    <message>
        <source>The folder %1 is gone. What has come so far stays.</source>
        <translation>Den Ordner %1 gibt es nicht mehr. Was gekommen ist, bleibt.</translation>
    </message>
    <message>
        <source>The practice camera has finished: %1</source>
        <translation>Die Übungskamera ist fertig: %1</translation>
    </message>
    <message>
        <source>Practice camera: %1 of %2 have come</source>
        <translation>Übungskamera: %1 von %2 sind da</translation>
    </message>
    <message>
        <source>Watching %1: %2 have come</source>
        <translation>%1 wird beobachtet: %2 sind da</translation>
    </message>
</context>
<context>
    <name>bp::app::BrushPanel</name>
    <message>
        <source>%1%</source>
        <translation>%1&#xa0;%</translation>
    </message>
    <message>
        <source>Size</source>
        <translation>Größe</translation>
    </message>
    <message>
        <source>Width of the brush in pixels of the picture (, and .)</source>
        <translation>Breite des Pinsels in Pixeln des Bildes (, und .)</translation>
    </message>
    <message>
        <source>%1 px</source>
        <translation>%1 px</translation>
    </message>
    <message>
        <source>Softness</source>
        <translation>Weichheit</translation>
    </message>
    <message>
        <source>How gently the edge of a stroke fades</source>
        <translation>Wie sanft der Rand eines Striches ausläuft</translation>
    </message>
    <message>
        <source>Strength</source>
        <translation>Stärke</translation>
    </message>
    <message>
        <source>The most that one stroke gives or takes</source>
        <translation>Das meiste, was ein Strich gibt oder nimmt</translation>
    </message>
</context>
<context>
    <name>bp::app::CameraPanel</name>
    <message>
        <source>Practice camera</source>
        <translation>Übungskamera</translation>
    </message>
    <message>
        <source>A simulated camera in Skerrow harbour. Its frames come one by one, and the picture grows with them.</source>
        <translation>Eine nachgestellte Kamera im Hafen von Skerrow. Ihre Aufnahmen kommen einzeln, und das Bild wächst mit ihnen.</translation>
    </message>
    <message>
        <source>Scene</source>
        <translation>Szene</translation>
    </message>
    <message>
        <source>Exposure</source>
        <translation>Belichtung</translation>
    </message>
    <message>
        <source>Pause</source>
        <translation>Pause</translation>
    </message>
    <message>
        <source>Number of frames</source>
        <translation>Zahl der Aufnahmen</translation>
    </message>
    <message>
        <source>Pace</source>
        <translation>Tempo</translation>
    </message>
    <message>
        <source>As in life</source>
        <translation>Wie im Leben</translation>
    </message>
    <message>
        <source>10 times faster</source>
        <translation>10-mal schneller</translation>
    </message>
    <message>
        <source>60 times faster</source>
        <translation>60-mal schneller</translation>
    </message>
    <message>
        <source>As fast as it can</source>
        <translation>So schnell es geht</translation>
    </message>
    <message>
        <source>Frames</source>
        <translation>Aufnahmen</translation>
    </message>
    <message>
        <source>Start</source>
        <translation>Beginnen</translation>
    </message>
    <message>
        <source>Begins a new pile with what the camera takes</source>
        <translation>Beginnt einen neuen Stapel mit dem, was die Kamera aufnimmt</translation>
    </message>
    <message>
        <source>Takes about %1.</source>
        <translation>Dauert etwa %1.</translation>
    </message>
    <message>
        <source>Stop</source>
        <translation>Anhalten</translation>
    </message>
</context>
<context>
    <name>bp::app::Canvas</name>
    <message>
        <source>Picture</source>
        <translation>Bild</translation>
    </message>
    <message>
        <source>Ctrl with the arrow keys moves a mark over the picture, Enter is the button there</source>
        <translation>Strg mit den Pfeiltasten bewegt eine Marke über das Bild, Eingabe ist dort die Maustaste</translation>
    </message>
    <message>
        <source>Size of the picture</source>
        <translation>Größe des Bildes</translation>
    </message>
    <message>
        <source>How large the picture is shown: all of it, pixel by pixel, or as typed</source>
        <translation>Wie groß das Bild gezeigt wird: ganz, Pixel für Pixel oder wie eingetippt</translation>
    </message>
    <message>
        <source>%1%</source>
        <translation>%1&#xa0;%</translation>
    </message>
    <message>
        <source>   x %1  y %2</source>
        <translation>   x %1  y %2</translation>
    </message>
    <message>
        <source>   frame %1: %2</source>
        <translation>   Aufnahme %1: %2</translation>
    </message>
    <message>
        <source>   frame %1: %2 %3 %4</source>
        <translation>   Aufnahme %1: %2 %3 %4</translation>
    </message>
    <message>
        <source>   reached by %1 of %2 frames</source>
        <translation>   von %1 von %2 Aufnahmen erreicht</translation>
    </message>
    <message>
        <source>   frame %1</source>
        <translation>   Aufnahme %1</translation>
    </message>
    <message>
        <source>   frame %1 against %2, %3 times</source>
        <translation>   Aufnahme %1 gegen %2, %3-fach</translation>
    </message>
    <message>
        <source>   %1   light %2%</source>
        <translation>   %1   Licht %2&#xa0;%</translation>
    </message>
    <message>
        <source>   %1 %2 %3   light %4%</source>
        <translation>   %1 %2 %3   Licht %4&#xa0;%</translation>
    </message>
    <message>
        <source>   from all frames together: means and added light have no origins</source>
        <translation>   aus allen Aufnahmen zusammen: Mittel und addiertes Licht haben keine Herkunft</translation>
    </message>
    <message>
        <source>   from frame %1</source>
        <translation>   aus Aufnahme %1</translation>
    </message>
    <message>
        <source>   between frames %1 and %2</source>
        <translation>   zwischen den Aufnahmen %1 und %2</translation>
    </message>
</context>
<context>
    <name>bp::app::CanvasControls</name>
    <message>
        <source>What the canvas is measured in</source>
        <translation>Worin die Fläche gemessen wird</translation>
    </message>
    <message>
        <source>What the size of the canvas is told in; on paper it goes by the dots per inch</source>
        <translation>Worin die Größe der Fläche angegeben wird; auf Papier nach den Punkten je Zoll</translation>
    </message>
    <message>
        <source>Width</source>
        <translation>Breite</translation>
    </message>
    <message>
        <source>Width of the canvas; the frames lie in its middle</source>
        <translation>Breite der Fläche; die Aufnahmen liegen in ihrer Mitte</translation>
    </message>
    <message>
        <source>Height</source>
        <translation>Höhe</translation>
    </message>
    <message>
        <source>Height of the canvas; the frames lie in its middle</source>
        <translation>Höhe der Fläche; die Aufnahmen liegen in ihrer Mitte</translation>
    </message>
    <message>
        <source>Dots per inch</source>
        <translation>Punkte je Zoll</translation>
    </message>
    <message>
        <source>How many pixels go on an inch of paper</source>
        <translation>Wie viele Pixel auf einen Zoll Papier kommen</translation>
    </message>
    <message>
        <source>Background</source>
        <translation>Hintergrund</translation>
    </message>
    <message>
        <source>How bright the canvas is where nothing lies, from black to white</source>
        <translation>Wie hell die Fläche ist, wo nichts liegt, von Schwarz bis Weiß</translation>
    </message>
    <message>
        <source>%1%</source>
        <translation>%1&#xa0;%</translation>
    </message>
    <message>
        <source>Colour...</source>
        <translation>Farbe...</translation>
    </message>
    <message>
        <source>The colour of the canvas where nothing lies</source>
        <translation>Die Farbe der Fläche, wo nichts liegt</translation>
    </message>
    <message>
        <source>As large as a frame</source>
        <translation>So groß wie eine Aufnahme</translation>
    </message>
    <message>
        <source>The canvas is as large as a frame again</source>
        <translation>Die Fläche ist wieder so groß wie eine Aufnahme</translation>
    </message>
    <message>
        <source>Measure of the canvas</source>
        <translation>Maß der Fläche</translation>
    </message>
    <message>
        <source>Canvas as large as a frame</source>
        <translation>Fläche so groß wie eine Aufnahme</translation>
    </message>
    <message>
        <source>Background of the canvas</source>
        <translation>Hintergrund der Fläche</translation>
    </message>
    <message>
        <source>Size of the canvas</source>
        <translation>Größe der Fläche</translation>
    </message>
    <message>
        <source>%1 x %2 px</source>
        <translation>%1 x %2 px</translation>
    </message>
    <message>
        <source>%1 x %2 px at %3 dots per inch</source>
        <translation>%1 x %2 px bei %3 Punkten je Zoll</translation>
    </message>
</context>
<context>
    <name>bp::app::CapturePanel</name>
    <message>
        <source>%1 of %2 have it</source>
        <translation>%1 von %2 haben es</translation>
    </message>
    <message>
        <source>%1 to %2</source>
        <translation>%1 bis %2</translation>
    </message>
    <message>
        <source>Capture data</source>
        <translation>Aufnahmedaten</translation>
    </message>
    <message>
        <source>Amber: what differs across the run.</source>
        <translation>Bernstein: was im Lauf verschieden ist.</translation>
    </message>
    <message>
        <source>Taken</source>
        <translation>Aufgenommen</translation>
    </message>
    <message>
        <source>Exposure</source>
        <translation>Belichtung</translation>
    </message>
    <message>
        <source>ISO</source>
        <translation>ISO</translation>
    </message>
    <message>
        <source>Aperture</source>
        <translation>Blende</translation>
    </message>
    <message>
        <source>f/%1</source>
        <translation>f/%1</translation>
    </message>
    <message>
        <source>Focal length</source>
        <translation>Brennweite</translation>
    </message>
    <message>
        <source>%1 mm</source>
        <translation>%1 mm</translation>
    </message>
    <message>
        <source>Camera</source>
        <translation>Kamera</translation>
    </message>
    <message>
        <source>Size</source>
        <translation>Größe</translation>
    </message>
    <message>
        <source>%1 x %2</source>
        <translation>%1 x %2</translation>
    </message>
    <message>
        <source>Depth</source>
        <translation>Tiefe</translation>
    </message>
    <message>
        <source>%1 bit</source>
        <translation>%1 Bit</translation>
    </message>
    <message>
        <source>Profile</source>
        <translation>Profil</translation>
    </message>
    <message>
        <source>File</source>
        <translation>Datei</translation>
    </message>
</context>
<context>
    <name>bp::app::CastPad</name>
    <message>
        <source>Cast of light</source>
        <translation>Farbstich</translation>
    </message>
    <message>
        <source>Can be set by the numbers below it</source>
        <translation>Lässt sich auch mit den Zahlen darunter einstellen</translation>
    </message>
    <message>
        <source>Drag the knot: to the right warmer, to the left cooler, up towards magenta, down towards green; a double-click takes it back</source>
        <translation>Am Knoten ziehen: nach rechts wärmer, nach links kühler, nach oben zu Magenta, nach unten zu Grün; ein Doppelklick nimmt es zurück</translation>
    </message>
</context>
<context>
    <name>bp::app::ClipDialog</name>
    <message>
        <source>Frames of %1</source>
        <translation>Aufnahmen aus %1</translation>
    </message>
    <message>
        <source>%1 x %2 px, %3 s, %4 frames a second</source>
        <translation>%1 x %2 px, %3 s, %4 Aufnahmen je Sekunde</translation>
    </message>
    <message>
        <source>From</source>
        <translation>Von</translation>
    </message>
    <message>
        <source> s</source>
        <translation> s</translation>
    </message>
    <message>
        <source>To</source>
        <translation>Bis</translation>
    </message>
    <message>
        <source>Frames a second</source>
        <translation>Aufnahmen je Sekunde</translation>
    </message>
    <message>
        <source> a second</source>
        <translation> je Sekunde</translation>
    </message>
    <message>
        <source>Take</source>
        <translation>Nehmen</translation>
    </message>
    <message>
        <source>Leave it</source>
        <translation>Lassen</translation>
    </message>
    <message>
        <source>Adds nothing</source>
        <translation>Fügt nichts hinzu</translation>
    </message>
    <message>
        <source>Take frames</source>
        <translation>Aufnahmen nehmen</translation>
    </message>
    <message>
        <source>Adds these frames to the pile</source>
        <translation>Fügt diese Aufnahmen dem Stapel hinzu</translation>
    </message>
    <message>
        <source>%1 frames: that is a lot. Take fewer a second?</source>
        <translation>%1 Aufnahmen: das ist viel. Weniger je Sekunde nehmen?</translation>
    </message>
    <message>
        <source>%1 frames</source>
        <translation>%1 Aufnahmen</translation>
    </message>
</context>
<context>
    <name>bp::app::Comparison</name>
    <message>
        <source>Swap settings of the merge</source>
        <translation>Einstellungen des Vereinens tauschen</translation>
    </message>
    <message>
        <source>Result</source>
        <translation>Ergebnis</translation>
    </message>
    <message>
        <source>Held settings</source>
        <translation>Gemerkte Einstellungen</translation>
    </message>
    <message>
        <source>Before finishing</source>
        <translation>Vor dem Vollenden</translation>
    </message>
    <message>
        <source>frame %1</source>
        <translation>Aufnahme %1</translation>
    </message>
</context>
<context>
    <name>bp::app::CropControls</name>
    <message>
        <source>Turn to the horizon</source>
        <translation>Nach dem Horizont drehen</translation>
    </message>
    <message>
        <source>Full cover</source>
        <translation>Volle Deckung</translation>
    </message>
    <message>
        <source>The largest rectangle that every frame reaches, to begin a crop with</source>
        <translation>Das größte Rechteck, das jede Aufnahme erreicht, als Beginn eines Beschnitts</translation>
    </message>
    <message>
        <source>Whole canvas</source>
        <translation>Ganze Fläche</translation>
    </message>
    <message>
        <source>All of the canvas, to begin a crop with</source>
        <translation>Die ganze Fläche, als Beginn eines Beschnitts</translation>
    </message>
    <message>
        <source>Crop to full cover</source>
        <translation>Auf volle Deckung beschneiden</translation>
    </message>
    <message>
        <source>Do not crop</source>
        <translation>Nicht beschneiden</translation>
    </message>
    <message>
        <source>Ratio</source>
        <translation>Verhältnis</translation>
    </message>
    <message>
        <source>Ratio of width to height</source>
        <translation>Verhältnis von Breite zu Höhe</translation>
    </message>
    <message>
        <source>Width to height that the crop keeps. Type one of your own, as 65:24, and press Enter</source>
        <translation>Breite zu Höhe, die der Beschnitt hält. Ein eigenes wie 65:24 eintippen und Eingabe drücken</translation>
    </message>
    <message>
        <source>Turn</source>
        <translation>Kippen</translation>
    </message>
    <message>
        <source>Upright instead of across, and back</source>
        <translation>Hochkant statt quer, und zurück</translation>
    </message>
    <message>
        <source>Any</source>
        <translation>Beliebig</translation>
    </message>
    <message>
        <source>Turn the crop</source>
        <translation>Beschnitt kippen</translation>
    </message>
    <message>
        <source>As the frames</source>
        <translation>Wie die Aufnahmen</translation>
    </message>
    <message>
        <source>%1 is no ratio: write two numbers with a colon between them, as 3:2.</source>
        <translation>%1 ist kein Verhältnis: schreibe zwei Zahlen mit einem Doppelpunkt dazwischen, wie 3:2.</translation>
    </message>
    <message>
        <source>Crop to %1</source>
        <translation>Auf %1 beschneiden</translation>
    </message>
    <message>
        <source>Left</source>
        <translation>Links</translation>
    </message>
    <message>
        <source>Where the picture begins on the canvas</source>
        <translation>Wo das Bild auf der Fläche beginnt</translation>
    </message>
    <message>
        <source>Top</source>
        <translation>Oben</translation>
    </message>
    <message>
        <source>Width</source>
        <translation>Breite</translation>
    </message>
    <message>
        <source>Width of the picture</source>
        <translation>Breite des Bildes</translation>
    </message>
    <message>
        <source>Height</source>
        <translation>Höhe</translation>
    </message>
    <message>
        <source>Height of the picture</source>
        <translation>Höhe des Bildes</translation>
    </message>
    <message>
        <source> px</source>
        <translation> px</translation>
    </message>
    <message>
        <source>Turned</source>
        <translation>Gedreht</translation>
    </message>
    <message>
        <source>Degrees by which the picture is turned</source>
        <translation>Grad, um die das Bild gedreht ist</translation>
    </message>
    <message>
        <source>Turns the whole picture clockwise, so that a horizon is level</source>
        <translation>Dreht das ganze Bild im Uhrzeigersinn, damit ein Horizont waagrecht liegt</translation>
    </message>
    <message>
        <source>°</source>
        <translation>°</translation>
    </message>
    <message>
        <source>Draw a horizon</source>
        <translation>Horizont zeichnen</translation>
    </message>
    <message>
        <source>Draw a line on the picture along what is to be level, or upright</source>
        <translation>Zeichne im Bild eine Linie entlang dem, was waagrecht oder senkrecht sein soll</translation>
    </message>
    <message>
        <source>Find it</source>
        <translation>Finden</translation>
    </message>
    <message>
        <source>Turns the picture so that its longest straight edge across is level</source>
        <translation>Dreht das Bild so, dass seine längste gerade Querkante waagrecht liegt</translation>
    </message>
    <message>
        <source>Turn the picture</source>
        <translation>Bild drehen</translation>
    </message>
    <message>
        <source>Crop</source>
        <translation>Beschneiden</translation>
    </message>
</context>
<context>
    <name>bp::app::CurvePad</name>
    <message>
        <source>Curve</source>
        <translation>Kurve</translation>
    </message>
    <message>
        <source>From dark on the left to bright on the right: as bright as the curve is high. Click on the line for a point, pull it; a double-click takes it away. By keys: Insert adds a point, Page Up and Page Down choose one, arrows move it, Delete takes it away</source>
        <translation>Von dunkel links nach hell rechts: so hell, wie die Kurve hoch ist. Ein Klick auf die Linie setzt einen Punkt, ziehen bewegt ihn, ein Doppelklick nimmt ihn weg. Mit Tasten: Einfügen setzt einen Punkt, Bild auf und Bild ab wählen einen, Pfeile bewegen ihn, Entfernen nimmt ihn weg</translation>
    </message>
    <message numerus="yes">
        <source>%n point(s). Insert adds one, Page Up and Page Down choose one</source>
        <translation>
            <numerusform>%n Punkt. Einfügen setzt einen, Bild auf und Bild ab wählen einen</numerusform>
            <numerusform>%n Punkte. Einfügen setzt einen, Bild auf und Bild ab wählen einen</numerusform>
        </translation>
    </message>
    <message>
        <source>Point %1 of %2: tone %3 becomes %4</source>
        <translation>Punkt %1 von %2: Ton %3 wird %4</translation>
    </message>
</context>
<context>
    <name>bp::app::Document</name>
    <message>
        <source>As it was opened</source>
        <translation>Wie geöffnet</translation>
    </message>
    <message>
        <source>The earliest that is remembered</source>
        <translation>Das Früheste, was gemerkt ist</translation>
    </message>
</context>
<context>
    <name>bp::app::EvenSensor</name>
    <message>
        <source>Darks</source>
        <translation>Dunkelbilder</translation>
    </message>
    <message>
        <source>Subtract darks</source>
        <translation>Dunkelbilder abziehen</translation>
    </message>
    <message>
        <source>Takes the mean of the dark frames from every frame: glow and hot pixels go</source>
        <translation>Zieht das Mittel der Dunkelbilder von jeder Aufnahme ab: Glimmen und heiße Pixel verschwinden</translation>
    </message>
    <message>
        <source>Scale to the exposure</source>
        <translation>An die Belichtung anpassen</translation>
    </message>
    <message>
        <source>Darks of another exposure are subtracted in proportion to it</source>
        <translation>Dunkelbilder anderer Belichtung werden im Verhältnis abgezogen</translation>
    </message>
    <message>
        <source>Hot pixels</source>
        <translation>Heiße Pixel</translation>
    </message>
    <message>
        <source>Mend hot pixels</source>
        <translation>Heiße Pixel ausbessern</translation>
    </message>
    <message>
        <source>Finds pixels that glow at one place in all frames, and takes their neighbours instead</source>
        <translation>Findet Pixel, die in allen Aufnahmen an derselben Stelle glimmen, und nimmt ihre Nachbarn</translation>
    </message>
    <message>
        <source>Sensor spots</source>
        <translation>Sensorflecken</translation>
    </message>
    <message>
        <source>Mark</source>
        <translation>Markieren</translation>
    </message>
    <message>
        <source>Click on dust in a frame: it is mended in all. Click on it again to give it back</source>
        <translation>Klick auf Staub in einer Aufnahme: er wird in allen ausgebessert. Noch ein Klick gibt ihn zurück</translation>
    </message>
    <message>
        <source>Suggest spots</source>
        <translation>Flecken vorschlagen</translation>
    </message>
    <message>
        <source>Looks for round shadows that all frames have at the same place of the sensor</source>
        <translation>Sucht runde Schatten, die alle Aufnahmen an derselben Stelle des Sensors haben</translation>
    </message>
    <message>
        <source>Size</source>
        <translation>Größe</translation>
    </message>
    <message>
        <source>Width of the spots that are marked, in pixels of the picture (, and .)</source>
        <translation>Breite der markierten Flecken, in Pixeln des Bildes (, und .)</translation>
    </message>
    <message>
        <source>%1 px</source>
        <translation>%1 px</translation>
    </message>
    <message>
        <source>Spots that are mended in all frames, with a tick, and those that are suspected. Choose one to see it.</source>
        <translation>Flecken, die in allen Aufnahmen ausgebessert werden, mit Haken, und vermutete. Wähle einen, um ihn zu sehen.</translation>
    </message>
    <message>
        <source>Mend all</source>
        <translation>Alle ausbessern</translation>
    </message>
    <message>
        <source>Mends every suspected spot in all frames</source>
        <translation>Bessert jeden vermuteten Fleck in allen Aufnahmen aus</translation>
    </message>
    <message>
        <source>Leave darks</source>
        <translation>Dunkelbilder lassen</translation>
    </message>
    <message>
        <source>Scale darks</source>
        <translation>Dunkelbilder anpassen</translation>
    </message>
    <message>
        <source>Subtract darks (%1)</source>
        <translation>Dunkelbilder abziehen (%1)</translation>
    </message>
    <message>
        <source>Frames taken with the lens covered, given the role Dark in the Frames step.</source>
        <translation>Aufnahmen mit bedecktem Objektiv, die im Schritt Aufnahmen die Rolle Dunkelbild haben.</translation>
    </message>
    <message numerus="yes">
        <source>%n frame(s) without a dark that fits.</source>
        <translation>
            <numerusform>%n Aufnahme ohne passendes Dunkelbild.</numerusform>
            <numerusform>%n Aufnahmen ohne passendes Dunkelbild.</numerusform>
        </translation>
    </message>
    <message>
        <source>Mend hot pixels (%1)</source>
        <translation>Heiße Pixel ausbessern (%1)</translation>
    </message>
    <message>
        <source>%1 px at %2, %3</source>
        <translation>%1 px bei %2, %3</translation>
    </message>
    <message>
        <source>Mended in all frames. Take the tick away to give it back.</source>
        <translation>In allen Aufnahmen ausgebessert. Nimm den Haken weg, um es zurückzugeben.</translation>
    </message>
    <message>
        <source>Suspected. Tick it to mend it in all frames.</source>
        <translation>Vermutet. Ein Haken bessert ihn in allen Aufnahmen aus.</translation>
    </message>
    <message>
        <source>%1 mended</source>
        <translation>%1 ausgebessert</translation>
    </message>
    <message>
        <source>%1 suspected</source>
        <translation>%1 vermutet</translation>
    </message>
    <message>
        <source>%1 mended, %2 suspected</source>
        <translation>%1 ausgebessert, %2 vermutet</translation>
    </message>
    <message>
        <source>Give back sensor spot</source>
        <translation>Sensorfleck zurückgeben</translation>
    </message>
</context>
<context>
    <name>bp::app::EvenStep</name>
    <message>
        <source>Light and colour</source>
        <translation>Licht und Farbe</translation>
    </message>
    <message>
        <source>How bright the frames are, and in which colours</source>
        <translation>Wie hell die Aufnahmen sind, und in welchen Farben</translation>
    </message>
    <message>
        <source>Sensor</source>
        <translation>Sensor</translation>
    </message>
    <message>
        <source>Darks, hot pixels and dust: what the sensor adds</source>
        <translation>Dunkelbilder, heiße Pixel und Staub: was der Sensor hinzufügt</translation>
    </message>
    <message>
        <source>Level the frames</source>
        <translation>Aufnahmen angleichen</translation>
    </message>
    <message>
        <source>Level of this frame</source>
        <translation>Pegel dieser Aufnahme</translation>
    </message>
    <message>
        <source>Overrules what was measured for the frame that is looked at</source>
        <translation>Gilt statt dessen, was für die betrachtete Aufnahme gemessen wurde</translation>
    </message>
    <message>
        <source>%1 EV</source>
        <translation>%1 EV</translation>
    </message>
    <message>
        <source>Level of frame %1</source>
        <translation>Pegel von Aufnahme %1</translation>
    </message>
    <message>
        <source>All frames</source>
        <translation>Alle Aufnahmen</translation>
    </message>
    <message>
        <source>What is set below goes for every frame</source>
        <translation>Was unten eingestellt wird, gilt für jede Aufnahme</translation>
    </message>
    <message>
        <source>Selection</source>
        <translation>Auswahl</translation>
    </message>
    <message>
        <source>What is set below comes on top, for the selected frames alone</source>
        <translation>Was unten eingestellt wird, kommt obendrauf, nur für die gewählten Aufnahmen</translation>
    </message>
    <message>
        <source>Grey</source>
        <translation>Grau</translation>
    </message>
    <message>
        <source>No look</source>
        <translation>Kein Look</translation>
    </message>
    <message>
        <source>Takes tone and colour back to as they were recorded</source>
        <translation>Nimmt Ton und Farbe zurück auf das, was aufgenommen wurde</translation>
    </message>
    <message>
        <source>Copy to selection</source>
        <translation>Auf Auswahl kopieren</translation>
    </message>
    <message>
        <source>The selected frames get the own look of the frame that is looked at</source>
        <translation>Die gewählten Aufnahmen bekommen den eigenen Look der betrachteten</translation>
    </message>
    <message>
        <source>Show what is clipped</source>
        <translation>Zeigen, was ausreißt</translation>
    </message>
    <message>
        <source>Hatches what is white or black in any channel: detail there is lost when frames merge</source>
        <translation>Schraffiert, was in einem Kanal weiß oder schwarz ist: dort geht beim Vereinen Zeichnung verloren</translation>
    </message>
    <message>
        <source>Copy look</source>
        <translation>Look kopieren</translation>
    </message>
    <message>
        <source>light levelled</source>
        <translation>Licht angeglichen</translation>
    </message>
    <message>
        <source>light, colour levelled</source>
        <translation>Licht und Farbe angeglichen</translation>
    </message>
    <message>
        <source>less darks</source>
        <translation>ohne Dunkelbilder</translation>
    </message>
    <message>
        <source>spots: %1</source>
        <translation>Flecken: %1</translation>
    </message>
    <message>
        <source>hot pixels: %1</source>
        <translation>heiße Pixel: %1</translation>
    </message>
    <message>
        <source>a look</source>
        <translation>ein Look</translation>
    </message>
    <message numerus="yes">
        <source>%n with an own look</source>
        <translation>
            <numerusform>%n mit eigenem Look</numerusform>
            <numerusform>%n mit eigenem Look</numerusform>
        </translation>
    </message>
    <message>
        <source>as recorded</source>
        <translation>wie aufgenommen</translation>
    </message>
    <message>
        <source>, </source>
        <translation>, </translation>
    </message>
    <message>
        <source>Frame %1 is the reference.</source>
        <translation>Aufnahme %1 ist die Referenz.</translation>
    </message>
    <message>
        <source>Frame %1 has no level: too dark, or clipped.</source>
        <translation>Aufnahme %1 hat keinen Pegel: zu dunkel oder beschnitten.</translation>
    </message>
    <message>
        <source>Frame %1: level set by you.</source>
        <translation>Aufnahme %1: Pegel von dir.</translation>
    </message>
    <message>
        <source>Frame %1: level measured.</source>
        <translation>Aufnahme %1: Pegel gemessen.</translation>
    </message>
    <message>
        <source>Even</source>
        <translation>Angleichen</translation>
    </message>
</context>
<context>
    <name>bp::app::ExportStep</name>
    <message>
        <source>16-bit TIFF</source>
        <translation>16-Bit-TIFF</translation>
    </message>
    <message>
        <source>16-bit PNG</source>
        <translation>16-Bit-PNG</translation>
    </message>
    <message>
        <source>JPEG</source>
        <translation>JPEG</translation>
    </message>
    <message>
        <source>WebP</source>
        <translation>WebP</translation>
    </message>
    <message>
        <source>JPEG XL, 16 bits</source>
        <translation>JPEG XL, 16 Bit</translation>
    </message>
    <message>
        <source>OpenEXR, half floats</source>
        <translation>OpenEXR, halbe Gleitzahlen</translation>
    </message>
    <message>
        <source>OpenEXR, floats</source>
        <translation>OpenEXR, Gleitzahlen</translation>
    </message>
    <message>
        <source>OpenRaster, in layers</source>
        <translation>OpenRaster, in Ebenen</translation>
    </message>
    <message>
        <source>8-bit TIFF</source>
        <translation>8-Bit-TIFF</translation>
    </message>
    <message>
        <source>8-bit PNG</source>
        <translation>8-Bit-PNG</translation>
    </message>
    <message>
        <source>Format</source>
        <translation>Format</translation>
    </message>
    <message>
        <source>Format of the exported picture</source>
        <translation>Format des ausgegebenen Bildes</translation>
    </message>
    <message>
        <source>Quality</source>
        <translation>Güte</translation>
    </message>
    <message>
        <source>Higher keeps more and takes more space. In WebP and JPEG XL 100 loses nothing</source>
        <translation>Höher behält mehr und braucht mehr Platz. In WebP und JPEG XL verliert 100 nichts</translation>
    </message>
    <message>
        <source>Format: %1</source>
        <translation>Format: %1</translation>
    </message>
    <message>
        <source>Quality %1</source>
        <translation>Güte %1</translation>
    </message>
    <message>
        <source>Export…</source>
        <translation>Ausgeben…</translation>
    </message>
    <message>
        <source>Asks for a place and a name, and writes the picture there</source>
        <translation>Fragt nach Ort und Namen und schreibt das Bild dorthin</translation>
    </message>
    <message>
        <source>Growth…</source>
        <translation>Wachsen…</translation>
    </message>
    <message>
        <source>Writes the picture as it comes into being, as a clip or numbered pictures</source>
        <translation>Schreibt, wie das Bild entsteht, als Film oder nummerierte Bilder</translation>
    </message>
    <message>
        <source>%1
%2 x %3 px, %4 KB
written in %5 s</source>
        <translation>%1
%2 x %3 px, %4 KB
in %5 s geschrieben</translation>
    </message>
    <message>
        <source>%1
%2 pictures of %3 x %4 px
written in %5 s</source>
        <translation>%1
%2 Bilder von %3 x %4 px
in %5 s geschrieben</translation>
    </message>
    <message>
        <source>What is written together</source>
        <translation>Was zusammen geschrieben wird</translation>
    </message>
    <message>
        <source>All of these are written in one order. Choose one to change it</source>
        <translation>Alles dies wird in einem Auftrag geschrieben. Wähle eines, um es zu ändern</translation>
    </message>
    <message>
        <source>One more</source>
        <translation>Noch eines</translation>
    </message>
    <message>
        <source>Writes the picture in one more way in the same order, as a small JPEG beside a large TIFF</source>
        <translation>Schreibt das Bild im selben Auftrag auf noch eine Weise, wie ein kleines JPEG neben einem großen TIFF</translation>
    </message>
    <message>
        <source>Take out</source>
        <translation>Herausnehmen</translation>
    </message>
    <message>
        <source>Takes the chosen one out of what is written</source>
        <translation>Nimmt das gewählte aus dem heraus, was geschrieben wird</translation>
    </message>
    <message>
        <source>No more than %1 are written together.</source>
        <translation>Mehr als %1 werden nicht zusammen geschrieben.</translation>
    </message>
    <message>
        <source>Write one more</source>
        <translation>Eines mehr schreiben</translation>
    </message>
    <message>
        <source>Write one less</source>
        <translation>Eines weniger schreiben</translation>
    </message>
    <message>
        <source>Name</source>
        <translation>Name</translation>
    </message>
    <message>
        <source>Name of the file</source>
        <translation>Name der Datei</translation>
    </message>
    <message>
        <source>as the pile</source>
        <translation>wie der Stapel</translation>
    </message>
    <message>
        <source>What the file is called. Words in braces stand for what they say: %1</source>
        <translation>Wie die Datei heißt. Wörter in Klammern stehen für das, was sie sagen: %1</translation>
    </message>
    <message>
        <source>Name of the export</source>
        <translation>Name der Ausgabe</translation>
    </message>
    <message>
        <source>Tell place and serial number</source>
        <translation>Ort und Seriennummer nennen</translation>
    </message>
    <message>
        <source>Whether the file tells where the frames were taken and by which camera of its kind, when they do</source>
        <translation>Ob die Datei sagt, wo und mit welcher Kamera ihrer Art aufgenommen wurde, wenn die Aufnahmen es tun</translation>
    </message>
    <message>
        <source>Leave out place and serial number</source>
        <translation>Ort und Seriennummer weglassen</translation>
    </message>
    <message>
        <source>Profile</source>
        <translation>Profil</translation>
    </message>
    <message>
        <source>Colour profile of the exported picture</source>
        <translation>Farbprofil des ausgegebenen Bildes</translation>
    </message>
    <message>
        <source>The colours stay; what they are told in changes. sRGB is read everywhere</source>
        <translation>Die Farben bleiben; anders wird, worin sie angegeben sind. sRGB wird überall gelesen</translation>
    </message>
    <message>
        <source>That of the frames</source>
        <translation>Das der Aufnahmen</translation>
    </message>
    <message>
        <source>sRGB</source>
        <translation>sRGB</translation>
    </message>
    <message>
        <source>Display P3</source>
        <translation>Display P3</translation>
    </message>
    <message>
        <source>Rec. 2020</source>
        <translation>Rec. 2020</translation>
    </message>
    <message>
        <source>From a file…</source>
        <translation>Aus einer Datei…</translation>
    </message>
    <message>
        <source>A colour profile</source>
        <translation>Ein Farbprofil</translation>
    </message>
    <message>
        <source>Profiles (*.icc *.icm)</source>
        <translation>Profile (*.icc *.icm)</translation>
    </message>
    <message>
        <source>Profile of the export</source>
        <translation>Profil der Ausgabe</translation>
    </message>
    <message>
        <source>Longer side in pixels</source>
        <translation>Längere Seite in Pixeln</translation>
    </message>
    <message>
        <source>Makes the picture smaller, in linear light. It is never enlarged; 0 leaves it as it is</source>
        <translation>Verkleinert das Bild, in linearem Licht. Vergrößert wird nie; 0 lässt es, wie es ist</translation>
    </message>
    <message>
        <source>as it is</source>
        <translation>wie es ist</translation>
    </message>
    <message>
        <source> px</source>
        <translation> px</translation>
    </message>
    <message>
        <source>Longer side on paper</source>
        <translation>Längere Seite auf Papier</translation>
    </message>
    <message>
        <source>The same on paper, by so many pixels an inch</source>
        <translation>Dasselbe auf Papier, nach Pixeln je Zoll</translation>
    </message>
    <message>
        <source>paper </source>
        <translation>Papier </translation>
    </message>
    <message>
        <source>paper as it is</source>
        <translation>Papier egal</translation>
    </message>
    <message>
        <source> cm</source>
        <translation> cm</translation>
    </message>
    <message>
        <source>Pixels an inch of paper</source>
        <translation>Pixel je Zoll Papier</translation>
    </message>
    <message>
        <source>Tells how large the picture is on paper; its pixels stay</source>
        <translation>Sagt, wie groß das Bild auf Papier ist; seine Pixel bleiben</translation>
    </message>
    <message>
        <source> dpi</source>
        <translation> dpi</translation>
    </message>
    <message>
        <source>Longer side</source>
        <translation>Längere Seite</translation>
    </message>
    <message>
        <source>Size of the export</source>
        <translation>Größe der Ausgabe</translation>
    </message>
    <message>
        <source>Pixels an inch</source>
        <translation>Pixel je Zoll</translation>
    </message>
    <message>
        <source>Sharpening</source>
        <translation>Schärfen</translation>
    </message>
    <message>
        <source>Of what was made smaller: it looks softer than it was</source>
        <translation>Von dem, was verkleinert wurde: es wirkt weicher, als es war</translation>
    </message>
    <message>
        <source>%1%</source>
        <translation>%1&#xa0;%</translation>
    </message>
    <message>
        <source>Sharpening of the export</source>
        <translation>Schärfen der Ausgabe</translation>
    </message>
    <message>
        <source>Check the picture</source>
        <translation>Bild prüfen</translation>
    </message>
    <message>
        <source>Looks for what may have been overlooked: places that nothing reaches, subjects that cover each other, borders of parts that cut through something</source>
        <translation>Sucht, was übersehen worden sein könnte: Stellen, die nichts erreicht, Motive, die sich verdecken, Grenzen von Teilen, die etwas durchschneiden</translation>
    </message>
    <message>
        <source>What may have been overlooked</source>
        <translation>Was übersehen worden sein könnte</translation>
    </message>
    <message>
        <source>Choose one to see the place</source>
        <translation>Wähle eines, um die Stelle zu sehen</translation>
    </message>
    <message>
        <source>Nothing reaches here</source>
        <translation>Hierher reicht nichts</translation>
    </message>
    <message>
        <source>%1 covers %2</source>
        <translation>%1 verdeckt %2</translation>
    </message>
    <message>
        <source>%1 cuts through something</source>
        <translation>%1 schneidet etwas durch</translation>
    </message>
    <message>
        <source>Nothing was found that may have been overlooked.</source>
        <translation>Nichts gefunden, was übersehen worden sein könnte.</translation>
    </message>
    <message numerus="yes">
        <source>%n place(s) to look at</source>
        <translation>
            <numerusform>%n Stelle zum Ansehen</numerusform>
            <numerusform>%n Stellen zum Ansehen</numerusform>
        </translation>
    </message>
    <message>
        <source>%1, %2 px</source>
        <translation>%1, %2 px</translation>
    </message>
    <message numerus="yes">
        <source>Export %n pictures…</source>
        <translation>
            <numerusform>%n Bild ausgeben…</numerusform>
            <numerusform>%n Bilder ausgeben…</numerusform>
        </translation>
    </message>
    <message>
        <source>%1 x %2 px, %3 x %4 cm</source>
        <translation>%1 x %2 px, %3 x %4 cm</translation>
    </message>
    <message>
        <source>Profile %1</source>
        <translation>Profil %1</translation>
    </message>
    <message>
        <source>Total exposure %1</source>
        <translation>Gesamtbelichtung %1</translation>
    </message>
    <message>
        <source>Export</source>
        <translation>Ausgabe</translation>
    </message>
</context>
<context>
    <name>bp::app::FinishColours</name>
    <message>
        <source>Colours of a range</source>
        <translation>Farben eines Bereichs</translation>
    </message>
    <message>
        <source>Range of colours</source>
        <translation>Farbbereich</translation>
    </message>
    <message>
        <source>Which range the controls below are for</source>
        <translation>Für welchen Bereich die Regler darunter gelten</translation>
    </message>
    <message>
        <source>New range</source>
        <translation>Neuer Bereich</translation>
    </message>
    <message>
        <source>Adds a range of colours to be changed</source>
        <translation>Fügt einen Farbbereich hinzu, der geändert wird</translation>
    </message>
    <message>
        <source>Remove</source>
        <translation>Entfernen</translation>
    </message>
    <message>
        <source>Takes the range away: its colours are as before</source>
        <translation>Nimmt den Bereich weg: seine Farben sind wie zuvor</translation>
    </message>
    <message>
        <source>Strength</source>
        <translation>Stärke</translation>
    </message>
    <message>
        <source>More or less of these colours</source>
        <translation>Mehr oder weniger dieser Farben</translation>
    </message>
    <message>
        <source>Brightness</source>
        <translation>Helligkeit</translation>
    </message>
    <message>
        <source>Makes what has these colours brighter or darker</source>
        <translation>Macht, was diese Farben hat, heller oder dunkler</translation>
    </message>
    <message>
        <source>Hue of a range</source>
        <translation>Farbton eines Bereichs</translation>
    </message>
    <message>
        <source>New range of colours</source>
        <translation>Neuer Farbbereich</translation>
    </message>
    <message>
        <source>Remove a range of colours</source>
        <translation>Farbbereich entfernen</translation>
    </message>
    <message>
        <source>Two colours</source>
        <translation>Zwei Farben</translation>
    </message>
    <message>
        <source>Dark tones</source>
        <translation>Dunkle Töne</translation>
    </message>
    <message>
        <source>How much of its colour dark tones get</source>
        <translation>Wie viel ihrer Farbe dunkle Töne bekommen</translation>
    </message>
    <message>
        <source>Their hue</source>
        <translation>Ihr Farbton</translation>
    </message>
    <message>
        <source>0 red, 120 green, 240 blue</source>
        <translation>0 Rot, 120 Grün, 240 Blau</translation>
    </message>
    <message>
        <source>Bright tones</source>
        <translation>Helle Töne</translation>
    </message>
    <message>
        <source>How much of its colour bright tones get</source>
        <translation>Wie viel ihrer Farbe helle Töne bekommen</translation>
    </message>
    <message>
        <source>Where they meet</source>
        <translation>Wo sie sich treffen</translation>
    </message>
    <message>
        <source>Which tone has half of both colours: darker or brighter ones</source>
        <translation>Welcher Ton von beiden Farben die Hälfte hat: ein dunklerer oder ein hellerer</translation>
    </message>
    <message>
        <source>Range %1: around %2°</source>
        <translation>Bereich %1: um %2°</translation>
    </message>
</context>
<context>
    <name>bp::app::FinishCrop</name>
    <message>
        <source>Pull the edges on the picture, or move all of it.</source>
        <translation>Ziehe die Kanten im Bild, oder bewege alles.</translation>
    </message>
    <message>
        <source>Canvas</source>
        <translation>Fläche</translation>
    </message>
    <message>
        <source>%1 x %2 cm at %3 dpi</source>
        <translation>%1 x %2 cm bei %3 dpi</translation>
    </message>
</context>
<context>
    <name>bp::app::FinishCurve</name>
    <message>
        <source>Shows the curve of this channel, which comes after that of brightness</source>
        <translation>Zeigt die Kurve dieses Kanals, die nach der der Helligkeit kommt</translation>
    </message>
    <message>
        <source>All</source>
        <translation>Alle</translation>
    </message>
    <message>
        <source>Shows the curve of brightness, that all channels go through</source>
        <translation>Zeigt die Kurve der Helligkeit, durch die alle Kanäle gehen</translation>
    </message>
    <message>
        <source>Red</source>
        <translation>Rot</translation>
    </message>
    <message>
        <source>Green</source>
        <translation>Grün</translation>
    </message>
    <message>
        <source>Blue</source>
        <translation>Blau</translation>
    </message>
    <message>
        <source>Straight</source>
        <translation>Gerade</translation>
    </message>
    <message>
        <source>Takes all points of this curve away</source>
        <translation>Nimmt alle Punkte dieser Kurve weg</translation>
    </message>
    <message>
        <source>Curve</source>
        <translation>Kurve</translation>
    </message>
    <message>
        <source>Straight curve</source>
        <translation>Gerade Kurve</translation>
    </message>
</context>
<context>
    <name>bp::app::FinishDetail</name>
    <message>
        <source>Give back what placing took</source>
        <translation>Zurückgeben, was das Legen nahm</translation>
    </message>
    <message>
        <source>Frames that were moved by parts of a pixel lose contrast in their finest detail, by as much as is known from where they lie: gives it back. Seen at 1:1</source>
        <translation>Aufnahmen, die um Bruchteile eines Pixels bewegt wurden, verlieren feinsten Kontrast, so viel, wie aus ihrer Lage bekannt ist: gibt ihn zurück. Zu sehen bei 1:1</translation>
    </message>
    <message>
        <source>Leave what placing took</source>
        <translation>Lassen, was das Legen nahm</translation>
    </message>
    <message>
        <source>Glow of the sky</source>
        <translation>Schein des Himmels</translation>
    </message>
    <message>
        <source>Evened by</source>
        <translation>Ausgeglichen um</translation>
    </message>
    <message>
        <source>Evens what is bright and coloured in one part of the sky and not in another. Land stays where the picture is divided into zones; without them all of it is sky</source>
        <translation>Gleicht aus, was in einem Teil des Himmels hell und farbig ist und im anderen nicht. Land bleibt, wo das Bild in Bereiche geteilt ist; ohne sie ist alles Himmel</translation>
    </message>
    <message>
        <source>All of the picture counts as sky. Divide it in Align, Zones, so that land does not.</source>
        <translation>Das ganze Bild zählt als Himmel. Teile es unter Ausrichten, Bereiche, damit Land nicht zählt.</translation>
    </message>
    <message>
        <source>Show the glow alone</source>
        <translation>Nur den Schein zeigen</translation>
    </message>
    <message>
        <source>Shows the smooth surface that the sky is evened by</source>
        <translation>Zeigt die glatte Fläche, nach der der Himmel ausgeglichen wird</translation>
    </message>
    <message>
        <source>Edges of the picture</source>
        <translation>Ränder des Bildes</translation>
    </message>
    <message>
        <source>Darker, lighter</source>
        <translation>Dunkler, heller</translation>
    </message>
    <message>
        <source>How much darker or lighter the corners become</source>
        <translation>Wie viel dunkler oder heller die Ecken werden</translation>
    </message>
    <message>
        <source> EV</source>
        <translation> EV</translation>
    </message>
    <message>
        <source>Begins at</source>
        <translation>Beginnt bei</translation>
    </message>
    <message>
        <source>How far from the middle it begins</source>
        <translation>Wie weit von der Mitte es beginnt</translation>
    </message>
    <message>
        <source>Roundness</source>
        <translation>Rundung</translation>
    </message>
    <message>
        <source>An ellipse in the crop, or nearly its rectangle</source>
        <translation>Eine Ellipse im Beschnitt, oder fast dessen Rechteck</translation>
    </message>
    <message>
        <source>%</source>
        <translation>&#xa0;%</translation>
    </message>
</context>
<context>
    <name>bp::app::FinishMend</name>
    <message>
        <source>Click on a spot, or draw along a wire or a scratch. What surrounds it takes its place, or what a frame shows there. Pull one to move it, or the dashed circle to mend it from elsewhere.</source>
        <translation>Klick auf einen Fleck, oder zieh an einem Draht oder Kratzer entlang. Was darum liegt, tritt an seine Stelle, oder was eine Aufnahme dort zeigt. Zieh eines, um es zu bewegen, oder den gestrichelten Kreis, um es von anderswo auszubessern.</translation>
    </message>
    <message>
        <source>Width</source>
        <translation>Breite</translation>
    </message>
    <message>
        <source>Of the next one, in pixels of the picture (, and .)</source>
        <translation>Des nächsten, in Pixeln des Bildes (, und .)</translation>
    </message>
    <message>
        <source>%1 px</source>
        <translation>%1 px</translation>
    </message>
    <message>
        <source>Mended</source>
        <translation>Ausgebessert</translation>
    </message>
    <message>
        <source>Take the tick away to see what was there; choose one to change it</source>
        <translation>Nimm den Haken weg, um zu sehen, was dort war; wähle eines, um es zu ändern</translation>
    </message>
    <message>
        <source>Width of the chosen one</source>
        <translation>Breite des gewählten</translation>
    </message>
    <message>
        <source>How wide what is mended is</source>
        <translation>Wie breit das Ausgebesserte ist</translation>
    </message>
    <message>
        <source> px</source>
        <translation> px</translation>
    </message>
    <message>
        <source>Remove</source>
        <translation>Entfernen</translation>
    </message>
    <message>
        <source>Shows what was there before</source>
        <translation>Zeigt, was vorher dort war</translation>
    </message>
    <message>
        <source>Mend</source>
        <translation>Ausbessern</translation>
    </message>
    <message>
        <source>Do not mend</source>
        <translation>Nicht ausbessern</translation>
    </message>
    <message>
        <source>Remove what was mended</source>
        <translation>Ausbesserung entfernen</translation>
    </message>
    <message>
        <source>From</source>
        <translation>Von</translation>
    </message>
    <message>
        <source>What takes the place of what is mended</source>
        <translation>Was an die Stelle des Ausgebesserten tritt</translation>
    </message>
    <message>
        <source>What surrounds it; or what the frame that is chosen in the time rail shows there, or the median of up to fifteen frames of the run</source>
        <translation>Was darum liegt; oder was die auf der Zeitleiste gewählte Aufnahme dort zeigt, oder der Median von bis zu fünfzehn Aufnahmen des Laufs</translation>
    </message>
    <message>
        <source>What surrounds it</source>
        <translation>Was darum liegt</translation>
    </message>
    <message>
        <source>The median of the frames</source>
        <translation>Der Median der Aufnahmen</translation>
    </message>
    <message>
        <source>Mend from elsewhere</source>
        <translation>Von anderswo ausbessern</translation>
    </message>
    <message>
        <source>Move what is mended</source>
        <translation>Ausbesserung bewegen</translation>
    </message>
    <message>
        <source>Switch to Result: the finished picture is what is mended.</source>
        <translation>Wechsle zu Ergebnis: ausgebessert wird das vollendete Bild.</translation>
    </message>
    <message>
        <source>Mend a spot</source>
        <translation>Fleck ausbessern</translation>
    </message>
    <message>
        <source>Mend a line</source>
        <translation>Linie ausbessern</translation>
    </message>
    <message>
        <source>Spot at %1, %2</source>
        <translation>Fleck bei %1, %2</translation>
    </message>
    <message>
        <source>Line from %1, %2</source>
        <translation>Linie ab %1, %2</translation>
    </message>
    <message>
        <source>Take the tick away to see what was there</source>
        <translation>Nimm den Haken weg, um zu sehen, was dort war</translation>
    </message>
    <message>
        <source>Frame %1</source>
        <translation>Aufnahme %1</translation>
    </message>
</context>
<context>
    <name>bp::app::FinishPlaces</name>
    <message>
        <source>Place of what is alike</source>
        <translation>Stelle aus Ähnlichem</translation>
    </message>
    <message>
        <source>Places</source>
        <translation>Stellen</translation>
    </message>
    <message>
        <source>What is done to parts of the picture, from the first to the last. The tick shows what one gives. Choose one to change it.</source>
        <translation>Was mit Teilen des Bildes geschieht, vom ersten zum letzten. Der Haken zeigt, was eine bewirkt. Wähle eine, um sie zu ändern.</translation>
    </message>
    <message>
        <source>Tone</source>
        <translation>Ton</translation>
    </message>
    <message>
        <source>Tone and colour of the place</source>
        <translation>Ton und Farbe der Stelle</translation>
    </message>
    <message>
        <source>Area</source>
        <translation>Gebiet</translation>
    </message>
    <message>
        <source>Where the place is, how strongly it shows, in which order</source>
        <translation>Wo die Stelle ist, wie stark sie wirkt, in welcher Reihenfolge</translation>
    </message>
    <message>
        <source>Detail</source>
        <translation>Zeichnung</translation>
    </message>
    <message>
        <source>Sharpness, contrast and noise there</source>
        <translation>Schärfe, Kontrast und Rauschen dort</translation>
    </message>
    <message>
        <source>Place on</source>
        <translation>Stelle an</translation>
    </message>
    <message>
        <source>Place off</source>
        <translation>Stelle aus</translation>
    </message>
    <message>
        <source>Pull a place</source>
        <translation>Stelle ziehen</translation>
    </message>
    <message>
        <source>New ramp</source>
        <translation>Neuer Verlauf</translation>
    </message>
    <message>
        <source>New ellipse</source>
        <translation>Neue Ellipse</translation>
    </message>
    <message>
        <source>Ramp</source>
        <translation>Verlauf</translation>
    </message>
    <message>
        <source>Drag from where it is to be whole to where nothing is left: a new place</source>
        <translation>Zieh von dort, wo sie ganz wirken soll, dorthin, wo nichts mehr bleibt: eine neue Stelle</translation>
    </message>
    <message>
        <source>Ellipse</source>
        <translation>Ellipse</translation>
    </message>
    <message>
        <source>Drag over the picture: a new place</source>
        <translation>Zieh über das Bild: eine neue Stelle</translation>
    </message>
    <message>
        <source>Brush</source>
        <translation>Pinsel</translation>
    </message>
    <message>
        <source>A new place that is painted</source>
        <translation>Eine neue Stelle, die gemalt wird</translation>
    </message>
    <message>
        <source>Alike</source>
        <translation>Ähnliches</translation>
    </message>
    <message>
        <source>Click on the picture: a new place of what is like it in brightness and colour</source>
        <translation>Klick ins Bild: eine neue Stelle aus dem, was in Helligkeit und Farbe ähnlich ist</translation>
    </message>
    <message>
        <source>Sky</source>
        <translation>Himmel</translation>
    </message>
    <message>
        <source>A new place: all of the sky</source>
        <translation>Eine neue Stelle: der ganze Himmel</translation>
    </message>
    <message>
        <source>Land</source>
        <translation>Land</translation>
    </message>
    <message>
        <source>A new place: all of the land</source>
        <translation>Eine neue Stelle: das ganze Land</translation>
    </message>
    <message>
        <source>New place</source>
        <translation>Neue Stelle</translation>
    </message>
    <message>
        <source>Reach</source>
        <translation>Reichweite</translation>
    </message>
    <message>
        <source>How far brightness and colour may differ from those of the place that is clicked on</source>
        <translation>Wie weit Helligkeit und Farbe von denen der angeklickten Stelle abweichen dürfen</translation>
    </message>
    <message>
        <source>%1%</source>
        <translation>%1&#xa0;%</translation>
    </message>
    <message>
        <source>Everywhere</source>
        <translation>Überall</translation>
    </message>
    <message>
        <source>Not only what hangs together with the place</source>
        <translation>Nicht nur, was mit der Stelle zusammenhängt</translation>
    </message>
    <message>
        <source>New painted place</source>
        <translation>Neue gemalte Stelle</translation>
    </message>
    <message>
        <source>Place of the sky</source>
        <translation>Stelle des Himmels</translation>
    </message>
    <message>
        <source>Place of the land</source>
        <translation>Stelle des Landes</translation>
    </message>
    <message>
        <source>%1 of a place</source>
        <translation>%1 einer Stelle</translation>
    </message>
    <message>
        <source>Name of the place</source>
        <translation>Name der Stelle</translation>
    </message>
    <message>
        <source>Name</source>
        <translation>Name</translation>
    </message>
    <message>
        <source>Name a place</source>
        <translation>Stelle benennen</translation>
    </message>
    <message>
        <source>Strength</source>
        <translation>Stärke</translation>
    </message>
    <message>
        <source>How much of the place shows</source>
        <translation>Wie viel von der Stelle sichtbar ist</translation>
    </message>
    <message>
        <source>Softness</source>
        <translation>Weichheit</translation>
    </message>
    <message>
        <source>How far inside its border an ellipse begins to fade</source>
        <translation>Wie weit innerhalb ihres Randes eine Ellipse auszulaufen beginnt</translation>
    </message>
    <message>
        <source>Keep</source>
        <translation>Behalten</translation>
    </message>
    <message>
        <source>Paints: what you paint over belongs to the place, too (K)</source>
        <translation>Malt: was übermalt ist, gehört auch zur Stelle (K)</translation>
    </message>
    <message>
        <source>Give back</source>
        <translation>Zurückgeben</translation>
    </message>
    <message>
        <source>Paints: what you paint over is left as it is (K)</source>
        <translation>Malt: was übermalt ist, bleibt, wie es ist (K)</translation>
    </message>
    <message>
        <source>Show where it is</source>
        <translation>Zeigen, wo sie ist</translation>
    </message>
    <message>
        <source>Hatches what the place keeps</source>
        <translation>Schraffiert, was die Stelle behält</translation>
    </message>
    <message>
        <source>Earlier</source>
        <translation>Früher</translation>
    </message>
    <message>
        <source>Does it before the place above it in the list</source>
        <translation>Vor der Stelle, die in der Liste darüber steht</translation>
    </message>
    <message>
        <source>Later</source>
        <translation>Später</translation>
    </message>
    <message>
        <source>Does it after the place below it in the list</source>
        <translation>Nach der Stelle, die in der Liste darunter steht</translation>
    </message>
    <message>
        <source>Copy</source>
        <translation>Kopieren</translation>
    </message>
    <message>
        <source>The same place once more</source>
        <translation>Dieselbe Stelle noch einmal</translation>
    </message>
    <message>
        <source>Remove</source>
        <translation>Entfernen</translation>
    </message>
    <message>
        <source>Takes the place away</source>
        <translation>Nimmt die Stelle weg</translation>
    </message>
    <message>
        <source>Order of places</source>
        <translation>Reihenfolge der Stellen</translation>
    </message>
    <message>
        <source>Copy a place</source>
        <translation>Stelle kopieren</translation>
    </message>
    <message>
        <source>Remove a place</source>
        <translation>Stelle entfernen</translation>
    </message>
    <message>
        <source>Painted</source>
        <translation>Gemalt</translation>
    </message>
    <message>
        <source>%1 %2</source>
        <translation>%1 %2</translation>
    </message>
    <message>
        <source>Choose it to change it; the tick shows what it gives</source>
        <translation>Wähle sie, um sie zu ändern; der Haken zeigt, was sie bewirkt</translation>
    </message>
    <message>
        <source>Draw where the picture is to be brighter, darker, warmer, calmer.</source>
        <translation>Zeichne, wo das Bild heller, dunkler, wärmer, ruhiger werden soll.</translation>
    </message>
    <message>
        <source>Choose a place in the list.</source>
        <translation>Wähle eine Stelle in der Liste.</translation>
    </message>
</context>
<context>
    <name>bp::app::FinishStep</name>
    <message>
        <source>Tone</source>
        <translation>Ton</translation>
    </message>
    <message>
        <source>Tone and colour of all of the picture</source>
        <translation>Ton und Farbe des ganzen Bildes</translation>
    </message>
    <message>
        <source>Curve</source>
        <translation>Kurve</translation>
    </message>
    <message>
        <source>A free curve of brightness, or of one channel</source>
        <translation>Eine freie Kurve der Helligkeit oder eines Kanals</translation>
    </message>
    <message>
        <source>Colour</source>
        <translation>Farbe</translation>
    </message>
    <message>
        <source>Ranges of colours, and the colours of dark and bright tones</source>
        <translation>Farbbereiche, und die Farben dunkler und heller Töne</translation>
    </message>
    <message>
        <source>Places</source>
        <translation>Stellen</translation>
    </message>
    <message>
        <source>Areas with tone, colour and detail of their own</source>
        <translation>Gebiete mit eigenem Ton, eigener Farbe und Zeichnung</translation>
    </message>
    <message>
        <source>Detail</source>
        <translation>Zeichnung</translation>
    </message>
    <message>
        <source>Sharpness, local contrast, noise, and the edges of the picture</source>
        <translation>Schärfe, örtlicher Kontrast, Rauschen und die Ränder des Bildes</translation>
    </message>
    <message>
        <source>Mend</source>
        <translation>Ausbessern</translation>
    </message>
    <message>
        <source>Spots, wires and scratches, mended from what surrounds them</source>
        <translation>Flecken, Drähte und Kratzer, ausgebessert aus dem, was darum liegt</translation>
    </message>
    <message>
        <source>Crop</source>
        <translation>Beschneiden</translation>
    </message>
    <message>
        <source>Which area of the canvas is the picture, free or to a ratio</source>
        <translation>Welches Gebiet der Fläche das Bild ist, frei oder in einem Verhältnis</translation>
    </message>
    <message>
        <source>Hold to see before</source>
        <translation>Halten zeigt vorher</translation>
    </message>
    <message>
        <source>Take a finish…</source>
        <translation>Vollendung nehmen…</translation>
    </message>
    <message>
        <source>Uses the values of a finish file, or of another pile, in place of those here</source>
        <translation>Nimmt die Werte einer Datei oder eines anderen Stapels anstelle derer hier</translation>
    </message>
    <message>
        <source>Save finish…</source>
        <translation>Vollendung sichern…</translation>
    </message>
    <message>
        <source>Writes the values of this step to a file, to be used on other piles</source>
        <translation>Schreibt die Werte dieses Schritts in eine Datei, für andere Stapel</translation>
    </message>
    <message>
        <source>No finish</source>
        <translation>Keine Vollendung</translation>
    </message>
    <message>
        <source>Takes all values of this step back</source>
        <translation>Nimmt alle Werte dieses Schritts zurück</translation>
    </message>
    <message>
        <source>crop</source>
        <translation>Beschnitt</translation>
    </message>
    <message>
        <source>turned</source>
        <translation>gedreht</translation>
    </message>
    <message>
        <source>glow</source>
        <translation>Schein</translation>
    </message>
    <message>
        <source>tone</source>
        <translation>Ton</translation>
    </message>
    <message>
        <source>curve</source>
        <translation>Kurve</translation>
    </message>
    <message>
        <source>colour</source>
        <translation>Farbe</translation>
    </message>
    <message numerus="yes">
        <source>%n place(s)</source>
        <translation>
            <numerusform>%n Stelle</numerusform>
            <numerusform>%n Stellen</numerusform>
        </translation>
    </message>
    <message>
        <source>detail</source>
        <translation>Zeichnung</translation>
    </message>
    <message>
        <source>edges</source>
        <translation>Ränder</translation>
    </message>
    <message numerus="yes">
        <source>%n mended</source>
        <translation>
            <numerusform>%n ausgebessert</numerusform>
            <numerusform>%n ausgebessert</numerusform>
        </translation>
    </message>
    <message>
        <source>as merged</source>
        <translation>wie vereint</translation>
    </message>
    <message>
        <source>, </source>
        <translation>, </translation>
    </message>
    <message>
        <source>Finish</source>
        <translation>Vollenden</translation>
    </message>
</context>
<context>
    <name>bp::app::FinishTone</name>
    <message>
        <source>Show what is clipped</source>
        <translation>Zeigen, was ausreißt</translation>
    </message>
    <message>
        <source>Hatches what is white or black in any channel of the finished picture</source>
        <translation>Schraffiert, was im vollendeten Bild in einem Kanal weiß oder schwarz ist</translation>
    </message>
    <message>
        <source>No tone</source>
        <translation>Kein Ton</translation>
    </message>
    <message>
        <source>Takes tone and colour back to as the frames and parts have them</source>
        <translation>Nimmt Ton und Farbe zurück auf die der Aufnahmen und Teile</translation>
    </message>
    <message>
        <source>%1 of the picture</source>
        <translation>%1 des Bildes</translation>
    </message>
    <message>
        <source>Grey of the picture</source>
        <translation>Grau des Bildes</translation>
    </message>
</context>
<context>
    <name>bp::app::FramesStep</name>
    <message>
        <source>Add…</source>
        <translation>Hinzufügen…</translation>
    </message>
    <message>
        <source>Adds frames to this pile</source>
        <translation>Fügt diesem Stapel Aufnahmen hinzu</translation>
    </message>
    <message>
        <source>Add a folder</source>
        <translation>Ordner hinzufügen</translation>
    </message>
    <message>
        <source>Files…</source>
        <translation>Dateien…</translation>
    </message>
    <message>
        <source>Add frames</source>
        <translation>Aufnahmen hinzufügen</translation>
    </message>
    <message>
        <source>A folder…</source>
        <translation>Einen Ordner…</translation>
    </message>
    <message>
        <source>A folder and those in it…</source>
        <translation>Einen Ordner und die darin…</translation>
    </message>
    <message>
        <source>Frames of a clip…</source>
        <translation>Aufnahmen aus einem Film…</translation>
    </message>
    <message>
        <source>Watch a folder…</source>
        <translation>Ordner beobachten…</translation>
    </message>
    <message>
        <source>Watch a folder</source>
        <translation>Ordner beobachten</translation>
    </message>
    <message>
        <source>Practice camera…</source>
        <translation>Übungskamera…</translation>
    </message>
    <message>
        <source>Stop</source>
        <translation>Anhalten</translation>
    </message>
    <message>
        <source>No more frames join the pile; those that have come stay</source>
        <translation>Es kommen keine Aufnahmen mehr dazu; die gekommenen bleiben</translation>
    </message>
    <message>
        <source>Look in folder…</source>
        <translation>Im Ordner suchen…</translation>
    </message>
    <message>
        <source>Finds missing or changed frames in another folder</source>
        <translation>Findet fehlende oder geänderte Aufnahmen in einem anderen Ordner</translation>
    </message>
    <message>
        <source>Take changed frames as they are</source>
        <translation>Geänderte nehmen, wie sie sind</translation>
    </message>
    <message>
        <source>Uses the files as they are now; masks that were painted for the others stay</source>
        <translation>Nimmt die Dateien, wie sie jetzt sind; Masken, die für die anderen gemalt sind, bleiben</translation>
    </message>
    <message>
        <source>Folder with the missing frames</source>
        <translation>Ordner mit den fehlenden Aufnahmen</translation>
    </message>
    <message numerus="yes">
        <source>Taken for %1, a guess by %n frame(s) of %2, one every %3. It is:</source>
        <translation>
            <numerusform>Für %1 gehalten, vermutet nach %n Aufnahme von %2, eine alle %3. Es ist:</numerusform>
            <numerusform>Für %1 gehalten, vermutet nach %n Aufnahmen von %2, eine alle %3. Es ist:</numerusform>
        </translation>
    </message>
    <message>
        <source>Taken for %1, a guess. It is:</source>
        <translation>Für %1 gehalten, vermutet. Es ist:</translation>
    </message>
    <message>
        <source>Odd frames</source>
        <translation>Auffällige Aufnahmen</translation>
    </message>
    <message>
        <source>Frames that differ from those around them, and why. A tick sets one aside. Choose one to see it.</source>
        <translation>Aufnahmen, die anders sind als ihre Nachbarn, und warum. Ein Haken legt eine beiseite. Wähle eine, um sie zu sehen.</translation>
    </message>
    <message>
        <source>Set all aside</source>
        <translation>Alle beiseite</translation>
    </message>
    <message>
        <source>Leaves all odd frames out of the picture without forgetting them</source>
        <translation>Lässt alle auffälligen Aufnahmen aus dem Bild, ohne sie zu vergessen</translation>
    </message>
    <message numerus="yes">
        <source>Set aside %n odd frame(s)</source>
        <translation>
            <numerusform>%n auffällige Aufnahme beiseitelegen</numerusform>
            <numerusform>%n auffällige Aufnahmen beiseitelegen</numerusform>
        </translation>
    </message>
    <message numerus="yes">
        <source>Take back %n odd frame(s)</source>
        <translation>
            <numerusform>%n auffällige Aufnahme zurückholen</numerusform>
            <numerusform>%n auffällige Aufnahmen zurückholen</numerusform>
        </translation>
    </message>
    <message>
        <source>Selected</source>
        <translation>Gewählt</translation>
    </message>
    <message>
        <source>Set aside</source>
        <translation>Beiseite</translation>
    </message>
    <message>
        <source>Remove</source>
        <translation>Entfernen</translation>
    </message>
    <message>
        <source>Role</source>
        <translation>Rolle</translation>
    </message>
    <message>
        <source>Role of the selected frames</source>
        <translation>Rolle der gewählten Aufnahmen</translation>
    </message>
    <message>
        <source>Scene frames are merged. A foreground is for parts. A dark was taken with the lens cap on.</source>
        <translation>Szenen werden vereint. Ein Vordergrund ist für Teile. Ein Dunkelbild ist mit bedecktem Objektiv aufgenommen.</translation>
    </message>
    <message>
        <source>This is a guess.</source>
        <translation>Das ist vermutet.</translation>
    </message>
    <message>
        <source>It is</source>
        <translation>Stimmt</translation>
    </message>
    <message>
        <source>Keeps the guessed role</source>
        <translation>Behält die vermutete Rolle</translation>
    </message>
    <message>
        <source>No, scene</source>
        <translation>Nein, Szene</translation>
    </message>
    <message>
        <source>Makes it a scene frame again</source>
        <translation>Macht sie wieder zur Szene</translation>
    </message>
    <message>
        <source>Reference</source>
        <translation>Referenz</translation>
    </message>
    <message>
        <source>The other frames are measured and aligned against this one</source>
        <translation>Die anderen Aufnahmen werden an dieser gemessen und ausgerichtet</translation>
    </message>
    <message>
        <source>Base</source>
        <translation>Grundlage</translation>
    </message>
    <message>
        <source>The mode One frame shows this one</source>
        <translation>Der Modus Eine Aufnahme zeigt diese</translation>
    </message>
    <message>
        <source>Note on this frame</source>
        <translation>Notiz zu dieser Aufnahme</translation>
    </message>
    <message>
        <source>Stays with the frame in the pile; the rail shows a turned corner</source>
        <translation>Bleibt bei der Aufnahme im Stapel; die Leiste zeigt eine geknickte Ecke</translation>
    </message>
    <message>
        <source>Role: %1</source>
        <translation>Rolle: %1</translation>
    </message>
    <message>
        <source>The run</source>
        <translation>Der Lauf</translation>
    </message>
    <message>
        <source>Find in names and notes</source>
        <translation>In Namen und Notizen suchen</translation>
    </message>
    <message>
        <source>Selects the frames whose name or note holds these words (Enter)</source>
        <translation>Wählt die Aufnahmen, deren Name oder Notiz diese Wörter enthält (Eingabe)</translation>
    </message>
    <message>
        <source>Keep one in</source>
        <translation>Eine von</translation>
    </message>
    <message>
        <source>Keep one frame in so many</source>
        <translation>Behält eine Aufnahme von so vielen</translation>
    </message>
    <message>
        <source>Thin</source>
        <translation>Ausdünnen</translation>
    </message>
    <message>
        <source>Sets aside all but every nth of the selected frames, or of all when one is selected</source>
        <translation>Legt alle bis auf jede n-te der gewählten Aufnahmen beiseite, oder von allen, wenn eine gewählt ist</translation>
    </message>
    <message>
        <source>%1; %2 odd</source>
        <translation>%1; %2 auffällig</translation>
    </message>
    <message>
        <source>No name or note holds “%1”.</source>
        <translation>Kein Name und keine Notiz enthält “%1”.</translation>
    </message>
    <message>
        <source>Note</source>
        <translation>Notiz</translation>
    </message>
    <message>
        <source>Keep one in %1</source>
        <translation>Eine von %1 behalten</translation>
    </message>
    <message>
        <source>%1 x %2 px</source>
        <translation>%1 x %2 px</translation>
    </message>
    <message>
        <source>%1 of light in the picture</source>
        <translation>%1 Licht im Bild</translation>
    </message>
    <message>
        <source>Take back</source>
        <translation>Zurückholen</translation>
    </message>
    <message>
        <source>and %1 more</source>
        <translation>und %1 mehr</translation>
    </message>
    <message>
        <source>%1: %2</source>
        <translation>%1: %2</translation>
    </message>
    <message>
        <source>Looking at the frames…</source>
        <translation>Die Aufnahmen werden angesehen…</translation>
    </message>
    <message>
        <source>No odd frames</source>
        <translation>Nichts auffällig</translation>
    </message>
    <message>
        <source>1 odd frame</source>
        <translation>1 auffällige Aufnahme</translation>
    </message>
    <message>
        <source>%1 odd frames</source>
        <translation>%1 auffällige Aufnahmen</translation>
    </message>
    <message>
        <source>Frames</source>
        <translation>Aufnahmen</translation>
    </message>
</context>
<context>
    <name>bp::app::GrowthDialog</name>
    <message>
        <source>Growth of the picture</source>
        <translation>Wachsen des Bildes</translation>
    </message>
    <message>
        <source>The picture as it comes into being: frame after frame, then part after part, finished as the whole one is.</source>
        <translation>Wie das Bild entsteht: Aufnahme für Aufnahme, dann Teil für Teil, vollendet wie das ganze.</translation>
    </message>
    <message>
        <source>Kind of file</source>
        <translation>Art der Datei</translation>
    </message>
    <message>
        <source>Clip, MP4</source>
        <translation>Film, MP4</translation>
    </message>
    <message>
        <source>Clip, WebM</source>
        <translation>Film, WebM</translation>
    </message>
    <message>
        <source>Numbered PNG pictures in a folder</source>
        <translation>Nummerierte PNG-Bilder in einem Ordner</translation>
    </message>
    <message>
        <source>Pictures a second</source>
        <translation>Bilder je Sekunde</translation>
    </message>
    <message>
        <source>How many pictures are seen a second</source>
        <translation>Wie viele Bilder je Sekunde zu sehen sind</translation>
    </message>
    <message>
        <source> a second</source>
        <translation> je Sekunde</translation>
    </message>
    <message>
        <source>Seconds until it is whole</source>
        <translation>Sekunden, bis es ganz ist</translation>
    </message>
    <message>
        <source>How long the picture takes to grow. As it comes: every frame is one picture</source>
        <translation>Wie lange das Bild wächst. Wie es kommt: jede Aufnahme ist ein Bild</translation>
    </message>
    <message>
        <source> s</source>
        <translation> s</translation>
    </message>
    <message>
        <source>as it comes</source>
        <translation>wie es kommt</translation>
    </message>
    <message>
        <source>Seconds that the whole picture stays</source>
        <translation>Sekunden, die das ganze Bild bleibt</translation>
    </message>
    <message>
        <source>How long the whole picture is seen at the end</source>
        <translation>Wie lange das ganze Bild am Ende zu sehen ist</translation>
    </message>
    <message>
        <source>Height of the pictures</source>
        <translation>Höhe der Bilder</translation>
    </message>
    <message>
        <source>How high the pictures are at most; as wide as 16 : 9 at most. Nothing is enlarged</source>
        <translation>Wie hoch die Bilder höchstens sind; höchstens so breit wie 16 : 9. Vergrößert wird nichts</translation>
    </message>
    <message>
        <source>%1 lines</source>
        <translation>%1 Zeilen</translation>
    </message>
    <message>
        <source>Write</source>
        <translation>Schreiben</translation>
    </message>
    <message>
        <source>Height</source>
        <translation>Höhe</translation>
    </message>
    <message>
        <source>Grows in</source>
        <translation>Wächst in</translation>
    </message>
    <message>
        <source>At</source>
        <translation>Mit</translation>
    </message>
    <message>
        <source>Stays for</source>
        <translation>Bleibt</translation>
    </message>
    <message>
        <source>Quality</source>
        <translation>Güte</translation>
    </message>
    <message>
        <source>Higher keeps more and takes more space</source>
        <translation>Höher behält mehr und braucht mehr Platz</translation>
    </message>
    <message>
        <source>Leave it</source>
        <translation>Lassen</translation>
    </message>
    <message>
        <source>Writes nothing</source>
        <translation>Schreibt nichts</translation>
    </message>
    <message>
        <source>Choose a place…</source>
        <translation>Ort wählen…</translation>
    </message>
    <message>
        <source>Asks for a place and a name, and writes the growth there</source>
        <translation>Fragt nach Ort und Namen und schreibt das Wachsen dorthin</translation>
    </message>
    <message>
        <source>%1 pictures of %2 x %3 px, %4 s</source>
        <translation>%1 Bilder von %2 x %3 px, %4 s</translation>
    </message>
</context>
<context>
    <name>bp::app::Guide</name>
    <message>
        <source>Guide</source>
        <translation>Handbuch</translation>
    </message>
    <message>
        <source>Find in the guide</source>
        <translation>Im Handbuch suchen</translation>
    </message>
    <message>
        <source>Chapters</source>
        <translation>Kapitel</translation>
    </message>
    <message>
        <source>The guide is not installed beside the program. Install Bright Pile again.</source>
        <translation>Das Handbuch ist nicht beim Programm. Installiere Bright Pile noch einmal.</translation>
    </message>
    <message>
        <source>No chapter holds these words.</source>
        <translation>Kein Kapitel enthält diese Wörter.</translation>
    </message>
    <message>
        <source>Chapter</source>
        <translation>Kapitel</translation>
    </message>
    <message>
        <source>in English</source>
        <comment>the folder of docs/guide with the chapters in your language</comment>
        <translation>de</translation>
    </message>
</context>
<context>
    <name>bp::app::HueRing</name>
    <message>
        <source>Range of hues</source>
        <translation>Bereich von Farbtönen</translation>
    </message>
    <message>
        <source>Can be set by the numbers below it</source>
        <translation>Lässt sich auch mit den Zahlen darunter einstellen</translation>
    </message>
    <message>
        <source>The knot on the ring chooses a range of colours; the one inside turns them. A double-click takes it back</source>
        <translation>Der Knoten auf dem Ring wählt einen Farbbereich, der innere dreht ihn. Ein Doppelklick nimmt es zurück</translation>
    </message>
</context>
<context>
    <name>bp::app::KeysSheet</name>
    <message>
        <source>Keys</source>
        <translation>Tasten</translation>
    </message>
    <message>
        <source>What every key does</source>
        <translation>Was jede Taste tut</translation>
    </message>
</context>
<context>
    <name>bp::app::LeftOutTarget</name>
    <message>
        <source>Switch to Frame to leave out something that one frame, or some, should not give.</source>
        <translation>Wechsle zu Aufnahme, um wegzulassen, was eine oder einige nicht geben sollen.</translation>
    </message>
    <message>
        <source>This frame takes no part in the merge: there is nothing to leave out.</source>
        <translation>Diese Aufnahme wird nicht vereint: es gibt nichts wegzulassen.</translation>
    </message>
    <message numerus="yes">
        <source>Leave out of %n frame(s)</source>
        <translation>
            <numerusform>Aus %n Aufnahme weglassen</numerusform>
            <numerusform>Aus %n Aufnahmen weglassen</numerusform>
        </translation>
    </message>
    <message numerus="yes">
        <source>Take in again in %n frame(s)</source>
        <translation>
            <numerusform>In %n Aufnahme wieder nehmen</numerusform>
            <numerusform>In %n Aufnahmen wieder nehmen</numerusform>
        </translation>
    </message>
</context>
<context>
    <name>bp::app::MainWindow</name>
    <message>
        <source>Bright Pile</source>
        <translation>Bright Pile</translation>
    </message>
    <message>
        <source>%1 - Bright Pile</source>
        <translation>%1 - Bright Pile</translation>
    </message>
    <message>
        <source>Plumb</source>
        <translation>Lot</translation>
    </message>
    <message>
        <source>Tones</source>
        <translation>Töne</translation>
    </message>
    <message>
        <source>Capture data</source>
        <translation>Aufnahmedaten</translation>
    </message>
    <message>
        <source>Frames of a clip</source>
        <translation>Aufnahmen aus einem Film</translation>
    </message>
    <message>
        <source>Taper</source>
        <translation>Ausklang</translation>
    </message>
    <message>
        <source>Not done yet: %1.</source>
        <translation>Noch nicht fertig: %1.</translation>
    </message>
    <message>
        <source>What is being written would be lost.</source>
        <translation>Was gerade geschrieben wird, ginge verloren.</translation>
    </message>
    <message>
        <source>Wait for it</source>
        <translation>Darauf warten</translation>
    </message>
    <message>
        <source>Goes on when everything is written</source>
        <translation>Geht weiter, wenn alles geschrieben ist</translation>
    </message>
    <message>
        <source>Stop it and leave</source>
        <translation>Anhalten und gehen</translation>
    </message>
    <message>
        <source>What is being written is given up; files that were there stay</source>
        <translation>Was geschrieben wird, wird aufgegeben; Dateien, die da waren, bleiben</translation>
    </message>
    <message>
        <source>Stay</source>
        <translation>Bleiben</translation>
    </message>
    <message>
        <source>Goes back to the pile</source>
        <translation>Zurück zum Stapel</translation>
    </message>
    <message>
        <source>%1 has edits that are not saved.</source>
        <translation>%1 hat Änderungen, die nicht gesichert sind.</translation>
    </message>
    <message>
        <source>Save them</source>
        <translation>Sichern</translation>
    </message>
    <message>
        <source>Saves the pile, then goes on</source>
        <translation>Sichert den Stapel, dann geht es weiter</translation>
    </message>
    <message>
        <source>Throw them away</source>
        <translation>Verwerfen</translation>
    </message>
    <message>
        <source>Goes on; the edits are lost</source>
        <translation>Geht weiter; die Änderungen sind verloren</translation>
    </message>
    <message>
        <source>Open a folder</source>
        <translation>Ordner öffnen</translation>
    </message>
    <message>
        <source>Frames for %1</source>
        <translation>Aufnahmen für %1</translation>
    </message>
    <message>
        <source>Open</source>
        <translation>Öffnen</translation>
    </message>
    <message>
        <source>The pile whose settings are taken</source>
        <translation>Der Stapel, dessen Einstellungen gelten</translation>
    </message>
    <message>
        <source>Piles (*.pile)</source>
        <translation>Stapel (*.pile)</translation>
    </message>
    <message>
        <source>Frames like %1</source>
        <translation>Aufnahmen wie %1</translation>
    </message>
    <message>
        <source>Save the pile</source>
        <translation>Stapel sichern</translation>
    </message>
    <message>
        <source>Save the finish</source>
        <translation>Vollendung sichern</translation>
    </message>
    <message>
        <source>Finish (*%1)</source>
        <translation>Vollendung (*%1)</translation>
    </message>
    <message>
        <source>Take a finish</source>
        <translation>Vollendung nehmen</translation>
    </message>
    <message>
        <source>Finish or pile (*%1 *.pile)</source>
        <translation>Vollendung oder Stapel (*%1 *.pile)</translation>
    </message>
    <message>
        <source>Export the picture</source>
        <translation>Bild ausgeben</translation>
    </message>
    <message>
        <source>Picture (*%1)</source>
        <translation>Bild (*%1)</translation>
    </message>
    <message numerus="yes">
        <source>Export %n picture(s) to a folder</source>
        <translation>
            <numerusform>%n Bild in einen Ordner ausgeben</numerusform>
            <numerusform>%n Bilder in einen Ordner ausgeben</numerusform>
        </translation>
    </message>
    <message>
        <source>%1: there already.</source>
        <translation>%1: gibt es schon.</translation>
    </message>
    <message>
        <source>In %1. What is in them now would be lost.</source>
        <translation>In %1. Was jetzt darin ist, ginge verloren.</translation>
    </message>
    <message>
        <source>Choose another folder</source>
        <translation>Anderer Ordner</translation>
    </message>
    <message>
        <source>Goes back to the dialog</source>
        <translation>Zurück zum Dialog</translation>
    </message>
    <message>
        <source>Replace them</source>
        <translation>Ersetzen</translation>
    </message>
    <message>
        <source>Writes over the files</source>
        <translation>Überschreibt die Dateien</translation>
    </message>
    <message>
        <source>Growth</source>
        <translation>Wachsen</translation>
    </message>
    <message>
        <source> growing</source>
        <translation> wächst</translation>
    </message>
    <message>
        <source>Write the growth to a new folder</source>
        <translation>Das Wachsen in einen neuen Ordner schreiben</translation>
    </message>
    <message>
        <source>Write the growth</source>
        <translation>Das Wachsen schreiben</translation>
    </message>
    <message>
        <source>Clip (*%1)</source>
        <translation>Film (*%1)</translation>
    </message>
    <message>
        <source>One finish is taken at a time: drop one of the %1.</source>
        <translation>Eine Vollendung nach der anderen: lass eine der %1 fallen.</translation>
    </message>
    <message>
        <source>%1 is a finish: open a pile first, then drop it again.</source>
        <translation>%1 ist eine Vollendung: öffne erst einen Stapel, dann lass sie noch einmal fallen.</translation>
    </message>
    <message>
        <source>Which of the piles is to be opened?</source>
        <translation>Welcher der Stapel soll geöffnet werden?</translation>
    </message>
    <message>
        <source>%1, and frames: what is to be done?</source>
        <translation>%1, und Aufnahmen: was soll geschehen?</translation>
    </message>
    <message>
        <source>Open the pile and add them</source>
        <translation>Stapel öffnen und hinzufügen</translation>
    </message>
    <message>
        <source>The frames join the pile</source>
        <translation>Die Aufnahmen kommen zum Stapel</translation>
    </message>
    <message>
        <source>Open the pile alone</source>
        <translation>Nur den Stapel öffnen</translation>
    </message>
    <message>
        <source>The frames are left out</source>
        <translation>Die Aufnahmen bleiben weg</translation>
    </message>
    <message>
        <source>Order by time</source>
        <translation>Nach Zeit ordnen</translation>
    </message>
    <message>
        <source>Order by name</source>
        <translation>Nach Namen ordnen</translation>
    </message>
    <message>
        <source>It is</source>
        <translation>Stimmt</translation>
    </message>
    <message>
        <source>Role: %1</source>
        <translation>Rolle: %1</translation>
    </message>
    <message>
        <source>Others are aligned to it</source>
        <translation>Andere werden an ihr ausgerichtet</translation>
    </message>
    <message>
        <source>Reference</source>
        <translation>Referenz</translation>
    </message>
    <message>
        <source>Size in percent</source>
        <translation>Größe in Prozent</translation>
    </message>
    <message>
        <source>%</source>
        <translation>&#xa0;%</translation>
    </message>
    <message>
        <source>%1 is no longer there. Open it from where it is now.</source>
        <translation>%1 gibt es nicht mehr. Öffne es dort, wo es jetzt ist.</translation>
    </message>
    <message>
        <source>The program could not be started again. End it, and start it by hand.</source>
        <translation>Das Programm ließ sich nicht neu starten. Beende es und starte es von Hand.</translation>
    </message>
</context>
<context>
    <name>bp::app::MergeHead</name>
    <message>
        <source>Head stands out</source>
        <translation>Kopf tritt hervor</translation>
    </message>
    <message>
        <source>The end of the trails that does not fade is shown at full strength, apart from the tail</source>
        <translation>Das Ende der Spuren, das nicht verblasst, erscheint in voller Stärke, abgesetzt vom Schweif</translation>
    </message>
    <message>
        <source>Frames</source>
        <translation>Aufnahmen</translation>
    </message>
    <message>
        <source>How many frames at the end of the run are the head</source>
        <translation>Wie viele Aufnahmen am Ende des Laufs der Kopf sind</translation>
    </message>
    <message>
        <source>Apart from the tail</source>
        <translation>Abstand zum Schweif</translation>
    </message>
    <message>
        <source>How many frames between head and tail are left out</source>
        <translation>Wie viele Aufnahmen zwischen Kopf und Schweif wegbleiben</translation>
    </message>
    <message numerus="yes">
        <source>%n frames</source>
        <translation>
            <numerusform>%n Aufnahme</numerusform>
            <numerusform>%n Aufnahmen</numerusform>
        </translation>
    </message>
    <message>
        <source>Grown and softened</source>
        <translation>Gewachsen und weich</translation>
    </message>
    <message>
        <source>How far the light of the head&apos;s frames spreads around every light</source>
        <translation>Wie weit sich das Licht des Kopfes um jedes Licht ausbreitet</translation>
    </message>
    <message>
        <source>%1 px</source>
        <translation>%1 px</translation>
    </message>
    <message>
        <source>As bright as before</source>
        <translation>So hell wie zuvor</translation>
    </message>
    <message>
        <source>Points of light are raised so that their middles stay bright though they grow. Without it their light is spread out and they grow dimmer</source>
        <translation>Lichtpunkte werden angehoben, damit ihre Mitten hell bleiben, obwohl sie wachsen. Sonst verteilt sich ihr Licht, und sie werden dunkler</translation>
    </message>
    <message>
        <source>No head</source>
        <translation>Kein Kopf</translation>
    </message>
    <message>
        <source>Head as bright as before</source>
        <translation>Kopf so hell wie zuvor</translation>
    </message>
    <message>
        <source>Head spread out</source>
        <translation>Kopf ausgebreitet</translation>
    </message>
    <message>
        <source>Head: %1 %2</source>
        <translation>Kopf: %1 %2</translation>
    </message>
</context>
<context>
    <name>bp::app::MergeKnit</name>
    <message>
        <source>Knit the breaks</source>
        <translation>Lücken schließen</translation>
    </message>
    <message>
        <source>Closes what pauses between exposures leave open in trails: of stars along the way the sky turned, of boats and lamps along their own</source>
        <translation>Schließt, was Pausen zwischen Belichtungen in Spuren offen lassen: bei Sternen entlang der Drehung des Himmels, bei Booten und Lampen entlang ihres eigenen Weges</translation>
    </message>
    <message>
        <source>Longest pause</source>
        <translation>Längste Pause</translation>
    </message>
    <message>
        <source>Longer pauses stay open. A frame that is set aside makes one</source>
        <translation>Längere Pausen bleiben offen. Eine beiseitegelegte Aufnahme macht eine</translation>
    </message>
    <message>
        <source>Show what was added</source>
        <translation>Zeigen, was dazukam</translation>
    </message>
    <message>
        <source>Hatches the pixels of the result that knitting changed</source>
        <translation>Schraffiert die Pixel des Ergebnisses, die das Schließen geändert hat</translation>
    </message>
    <message>
        <source>Looking how the lights moved. The breaks are closed when that is known.</source>
        <translation>Gesucht wird, wie die Lichter sich bewegten. Die Lücken schließen sich, wenn es bekannt ist.</translation>
    </message>
    <message>
        <source>Knit up to %1</source>
        <translation>Lücken bis %1 schließen</translation>
    </message>
    <message>
        <source>Trails grow in Lighten and Maximum: there their breaks can be closed.</source>
        <translation>Spuren wachsen in Aufhellen und Maximum: dort lassen sich ihre Lücken schließen.</translation>
    </message>
    <message>
        <source>These frames are aligned, and their stars leave no trails.</source>
        <translation>Diese Aufnahmen sind ausgerichtet, und ihre Sterne ziehen keine Spuren.</translation>
    </message>
    <message>
        <source>%1 of %2 pauses are closed, the longest of them %3.</source>
        <translation>%1 von %2 Pausen sind geschlossen, die längste davon %3.</translation>
    </message>
</context>
<context>
    <name>bp::app::MergeLeaveOut</name>
    <message>
        <source>Leave out</source>
        <translation>Weglassen</translation>
    </message>
    <message>
        <source>Paints: what you paint over takes no part, in all selected frames (K)</source>
        <translation>Malt: was übermalt ist, zählt nicht, in allen gewählten Aufnahmen (K)</translation>
    </message>
    <message>
        <source>Take in</source>
        <translation>Wieder nehmen</translation>
    </message>
    <message>
        <source>Paints: what you paint over takes part again, in all selected frames (K)</source>
        <translation>Malt: was übermalt ist, zählt wieder, in allen gewählten Aufnahmen (K)</translation>
    </message>
    <message>
        <source>Ellipse</source>
        <translation>Ellipse</translation>
    </message>
    <message>
        <source>Drag on the frame: what lies in the ellipse takes no part</source>
        <translation>Zieh auf der Aufnahme: was in der Ellipse liegt, zählt nicht</translation>
    </message>
    <message>
        <source>Band</source>
        <translation>Band</translation>
    </message>
    <message>
        <source>Drag along a line on the frame: what lies in the band takes no part. It is as wide as the brush</source>
        <translation>Zieh eine Linie auf der Aufnahme: was im Band liegt, zählt nicht. Es ist so breit wie der Pinsel</translation>
    </message>
    <message>
        <source>Frames with something left out</source>
        <translation>Aufnahmen, aus denen etwas wegbleibt</translation>
    </message>
    <message>
        <source>How much of each frame takes no part. Choose one to see it; take the tick away to take all of it in again.</source>
        <translation>Wie viel jeder Aufnahme nicht zählt. Wähle eine, um sie zu sehen; nimm den Haken weg, um alles wieder zu nehmen.</translation>
    </message>
    <message>
        <source>Leave out all</source>
        <translation>Alle weglassen</translation>
    </message>
    <message numerus="yes">
        <source>Take in again in %n frame(s)</source>
        <translation>
            <numerusform>In %n Aufnahme wieder nehmen</numerusform>
            <numerusform>In %n Aufnahmen wieder nehmen</numerusform>
        </translation>
    </message>
    <message>
        <source>Switch to Frame and paint over what a frame should not give: a torch in the grass, a passing car.</source>
        <translation>Wechsle zu Aufnahme und übermale, was sie nicht geben soll: eine Lampe im Gras, ein Auto.</translation>
    </message>
    <message numerus="yes">
        <source>What you paint over takes no part in the %n selected frame(s).</source>
        <translation>
            <numerusform>Was du übermalst, zählt in der %n gewählten Aufnahme nicht.</numerusform>
            <numerusform>Was du übermalst, zählt in den %n gewählten Aufnahmen nicht.</numerusform>
        </translation>
    </message>
    <message>
        <source>What you paint over takes no part in this frame. Select more on the rail for a range.</source>
        <translation>Was du übermalst, zählt in dieser Aufnahme nicht. Wähle auf der Leiste mehr für eine Reihe.</translation>
    </message>
    <message>
        <source>Take the tick away to take all of this frame in again.</source>
        <translation>Nimm den Haken weg, um alles dieser Aufnahme wieder zu nehmen.</translation>
    </message>
    <message>
        <source>Left out</source>
        <translation>Weggelassen</translation>
    </message>
    <message>
        <source>Around %1, %2 no frame takes part: the reference shows there.</source>
        <translation>Um %1, %2 zählt keine Aufnahme: dort erscheint die Referenz.</translation>
    </message>
    <message>
        <source>Frame %1: %2%</source>
        <translation>Aufnahme %1: %2&#xa0;%</translation>
    </message>
</context>
<context>
    <name>bp::app::MergeMode</name>
    <message>
        <source>Strength of the selection</source>
        <translation>Stärke der Auswahl</translation>
    </message>
    <message>
        <source>How much of their light the selected frames give to the picture</source>
        <translation>Wie viel ihres Lichts die gewählten Aufnahmen dem Bild geben</translation>
    </message>
    <message>
        <source>%1%</source>
        <translation>%1&#xa0;%</translation>
    </message>
    <message>
        <source>Whole pixels, by brightness</source>
        <translation>Ganze Pixel, nach Helligkeit</translation>
    </message>
    <message>
        <source>Every pixel is that of one frame, so stars keep their colour. Off: each channel for itself</source>
        <translation>Jedes Pixel kommt aus einer Aufnahme, Sterne behalten ihre Farbe. Aus: jeder Kanal für sich</translation>
    </message>
    <message>
        <source>Soft at white</source>
        <translation>Weich zum Weiß</translation>
    </message>
    <message>
        <source>Light that adds up beyond white is pressed below it, and keeps its shapes. Off: it is plain white</source>
        <translation>Licht, das sich über Weiß addiert, wird darunter gedrückt und behält seine Formen. Aus: es ist einfach weiß</translation>
    </message>
    <message>
        <source>Reckon in linear light</source>
        <translation>In linearem Licht rechnen</translation>
    </message>
    <message>
        <source>As light adds up in a camera. Off: the mean of the values as they stand in the files</source>
        <translation>Wie Licht sich in einer Kamera addiert. Aus: das Mittel der Werte, wie sie in den Dateien stehen</translation>
    </message>
    <message>
        <source>Make this frame the base</source>
        <translation>Diese Aufnahme zur Grundlage machen</translation>
    </message>
    <message>
        <source>Parts then lie over the frame that is looked at</source>
        <translation>Teile liegen dann über der betrachteten Aufnahme</translation>
    </message>
    <message>
        <source>Merge: %1</source>
        <translation>Vereinen: %1</translation>
    </message>
    <message>
        <source>Strength %1%</source>
        <translation>Stärke %1&#xa0;%</translation>
    </message>
    <message>
        <source>Whole pixels</source>
        <translation>Ganze Pixel</translation>
    </message>
    <message>
        <source>Channels</source>
        <translation>Kanäle</translation>
    </message>
    <message>
        <source>Hard at white</source>
        <translation>Hart zum Weiß</translation>
    </message>
    <message>
        <source>Linear light</source>
        <translation>Lineares Licht</translation>
    </message>
    <message>
        <source>Values as they stand</source>
        <translation>Werte, wie sie stehen</translation>
    </message>
    <message>
        <source>Base: frame %1</source>
        <translation>Grundlage: Aufnahme %1</translation>
    </message>
    <message>
        <source>No frame is left to merge.</source>
        <translation>Es bleibt keine Aufnahme zu vereinen.</translation>
    </message>
</context>
<context>
    <name>bp::app::MergeNoise</name>
    <message>
        <source>No flat places are seen here: move the picture and measure again.</source>
        <translation>Hier sind keine glatten Stellen zu sehen: bewege das Bild und miss noch einmal.</translation>
    </message>
    <message>
        <source>%1 EV less noise than one frame; the root of %2 frames gives %3 EV.</source>
        <translation>%1 EV weniger Rauschen als eine Aufnahme; die Wurzel aus %2 Aufnahmen gibt %3 EV.</translation>
    </message>
    <message>
        <source>At %1% brightness: %2% to %3%</source>
        <translation>Bei %1&#xa0;% Helligkeit: %2&#xa0;% bis %3&#xa0;%</translation>
    </message>
    <message>
        <source>Measure the noise</source>
        <translation>Rauschen messen</translation>
    </message>
    <message>
        <source>Tells how much noise the merge takes away, in flat places of what is seen</source>
        <translation>Sagt, wie viel Rauschen das Vereinen nimmt, an glatten Stellen dessen, was zu sehen ist</translation>
    </message>
    <message>
        <source>See it at 1:1</source>
        <translation>Bei 1:1 ansehen</translation>
    </message>
    <message>
        <source>Shows the result beside the reference, pixel by pixel</source>
        <translation>Zeigt das Ergebnis neben der Referenz, Pixel für Pixel</translation>
    </message>
    <message>
        <source>Measuring...</source>
        <translation>Wird gemessen...</translation>
    </message>
</context>
<context>
    <name>bp::app::MergeStep</name>
    <message>
        <source>Mode</source>
        <translation>Modus</translation>
    </message>
    <message>
        <source>How the frames become one picture</source>
        <translation>Wie die Aufnahmen ein Bild werden</translation>
    </message>
    <message>
        <source>Trails</source>
        <translation>Spuren</translation>
    </message>
    <message>
        <source>Trails may fade towards their ends, have a head, and their breaks be closed</source>
        <translation>Spuren dürfen an den Enden verblassen, einen Kopf haben, und ihre Lücken lassen sich schließen</translation>
    </message>
    <message>
        <source>Leave out</source>
        <translation>Weglassen</translation>
    </message>
    <message>
        <source>Areas of frames that take no part</source>
        <translation>Gebiete von Aufnahmen, die nicht zählen</translation>
    </message>
    <message>
        <source>sky %1, land %2</source>
        <translation>Himmel %1, Land %2</translation>
    </message>
    <message>
        <source>one frame: %1</source>
        <translation>eine Aufnahme: %1</translation>
    </message>
    <message>
        <source>%1 of %2</source>
        <translation>%1 aus %2</translation>
    </message>
    <message>
        <source>%1, taper %2%</source>
        <translation>%1, Ausklang %2&#xa0;%</translation>
    </message>
    <message>
        <source>%1, knitted</source>
        <translation>%1, Lücken geschlossen</translation>
    </message>
    <message>
        <source>Merge</source>
        <translation>Vereinen</translation>
    </message>
</context>
<context>
    <name>bp::app::MergeStreaks</name>
    <message>
        <source>Find streaks</source>
        <translation>Streifen suchen</translation>
    </message>
    <message>
        <source>Looks for aircraft, satellites and meteors in every frame. What you drew, pulled or left out stays</source>
        <translation>Sucht in jeder Aufnahme Flugzeuge, Satelliten und Meteore. Was du gezeichnet, gezogen oder weggelassen hast, bleibt</translation>
    </message>
    <message>
        <source>Draw one</source>
        <translation>Einen zeichnen</translation>
    </message>
    <message>
        <source>Leaves out a streak that was missed: click on its one end, then on the other</source>
        <translation>Lässt einen übersehenen Streifen weg: Klick auf sein eines Ende, dann auf das andere</translation>
    </message>
    <message>
        <source>Streaks</source>
        <translation>Streifen</translation>
    </message>
    <message>
        <source>Those with a tick are left out of their frames. Choose one to see it.</source>
        <translation>Die mit Haken bleiben aus ihren Aufnahmen weg. Wähle einen, um ihn zu sehen.</translation>
    </message>
    <message>
        <source>Leave out all</source>
        <translation>Alle weglassen</translation>
    </message>
    <message>
        <source>Leaves every streak out of the frame that has it</source>
        <translation>Lässt jeden Streifen aus der Aufnahme weg, die ihn hat</translation>
    </message>
    <message>
        <source>Leave out by kind</source>
        <translation>Nach Art weglassen</translation>
    </message>
    <message>
        <source>Leaves all of this kind out, or takes them in again</source>
        <translation>Lässt alle dieser Art weg, oder nimmt sie wieder</translation>
    </message>
    <message>
        <source>What the streak is</source>
        <translation>Was der Streifen ist</translation>
    </message>
    <message>
        <source>What it is, in all frames that have a streak of the same thing</source>
        <translation>Was es ist, in allen Aufnahmen mit einem Streifen desselben Dings</translation>
    </message>
    <message>
        <source>Width of the streak</source>
        <translation>Breite des Streifens</translation>
    </message>
    <message>
        <source>How wide the streak is: its glow goes with it</source>
        <translation>Wie breit der Streifen ist: sein Schein gehört dazu</translation>
    </message>
    <message>
        <source> px</source>
        <translation> px</translation>
    </message>
    <message>
        <source>Forget</source>
        <translation>Vergessen</translation>
    </message>
    <message>
        <source>It is no streak: takes it in again and off the list</source>
        <translation>Es ist kein Streifen: nimmt ihn wieder und streicht ihn von der Liste</translation>
    </message>
    <message>
        <source>Kind of streak</source>
        <translation>Art des Streifens</translation>
    </message>
    <message>
        <source>Width of a streak</source>
        <translation>Breite eines Streifens</translation>
    </message>
    <message>
        <source>Forget a streak</source>
        <translation>Streifen vergessen</translation>
    </message>
    <message numerus="yes">
        <source>Leave out %n streak(s)</source>
        <translation>
            <numerusform>%n Streifen weglassen</numerusform>
            <numerusform>%n Streifen weglassen</numerusform>
        </translation>
    </message>
    <message numerus="yes">
        <source>Take in %n streak(s)</source>
        <translation>
            <numerusform>%n Streifen wieder nehmen</numerusform>
            <numerusform>%n Streifen wieder nehmen</numerusform>
        </translation>
    </message>
    <message>
        <source>%1: %2, by hand</source>
        <translation>%1: %2, von Hand</translation>
    </message>
    <message>
        <source>%1: %2, %3% sure</source>
        <translation>%1: %2, zu %3&#xa0;% sicher</translation>
    </message>
    <message>
        <source>Left out of this frame. Take the tick away to take it in again.</source>
        <translation>Bleibt aus dieser Aufnahme weg. Nimm den Haken weg, um ihn wieder zu nehmen.</translation>
    </message>
    <message>
        <source>Tick it to leave it out of this frame.</source>
        <translation>Ein Haken lässt ihn aus dieser Aufnahme weg.</translation>
    </message>
</context>
<context>
    <name>bp::app::MergeTrails</name>
    <message>
        <source>Trails fade at</source>
        <translation>Spuren verblassen</translation>
    </message>
    <message>
        <source>No taper</source>
        <translation>Kein Ausklang</translation>
    </message>
    <message>
        <source>Taper: %1</source>
        <translation>Ausklang: %1</translation>
    </message>
    <message>
        <source>Over</source>
        <translation>Über</translation>
    </message>
    <message>
        <source>How long the trails take to rise from nothing to their full light</source>
        <translation>Wie lange die Spuren brauchen, um von nichts zu ihrem vollen Licht zu steigen</translation>
    </message>
    <message>
        <source>Shape</source>
        <translation>Form</translation>
    </message>
    <message>
        <source>Taper over %1%</source>
        <translation>Ausklang über %1&#xa0;%</translation>
    </message>
    <message>
        <source>Shape of the taper</source>
        <translation>Form des Ausklangs</translation>
    </message>
    <message>
        <source>%1 takes all frames alike: trails fade in Lighten, Add light and the means.</source>
        <translation>%1 nimmt alle Aufnahmen gleich: Spuren verblassen in Aufhellen, Licht addieren und den Mitteln.</translation>
    </message>
</context>
<context>
    <name>bp::app::MeteorTool</name>
    <message>
        <source>Pull a meteor</source>
        <translation>Meteor ziehen</translation>
    </message>
</context>
<context>
    <name>bp::app::Notices</name>
    <message>
        <source>Takes this sentence away</source>
        <translation>Nimmt diesen Satz weg</translation>
    </message>
    <message>
        <source>Take this sentence away</source>
        <translation>Diesen Satz wegnehmen</translation>
    </message>
    <message>
        <source>Progress</source>
        <translation>Fortschritt</translation>
    </message>
    <message>
        <source>Stop</source>
        <translation>Anhalten</translation>
    </message>
    <message>
        <source>Stops this work; what was there before stays</source>
        <translation>Hält diese Arbeit an; was vorher da war, bleibt</translation>
    </message>
    <message>
        <source>   about %1 left</source>
        <translation>   noch etwa %1</translation>
    </message>
    <message numerus="yes">
        <source>   %n more</source>
        <translation>
            <numerusform>   %n weitere</numerusform>
            <numerusform>   %n weitere</numerusform>
        </translation>
    </message>
    <message>
        <source>What the program says</source>
        <translation>Was das Programm sagt</translation>
    </message>
</context>
<context>
    <name>bp::app::OddCard</name>
    <message>
        <source>All frames show the scene</source>
        <translation>Alle Aufnahmen zeigen die Szene</translation>
    </message>
    <message>
        <source>Take all back</source>
        <translation>Alle zurücknehmen</translation>
    </message>
    <message>
        <source>Align: none</source>
        <translation>Ausrichten: nicht</translation>
    </message>
    <message>
        <source>Do not crop</source>
        <translation>Nicht zuschneiden</translation>
    </message>
    <message>
        <source>None of these frames can be read. The rail says of each why.</source>
        <translation>Keine dieser Aufnahmen ist lesbar. Die Zeitleiste sagt von jeder, warum.</translation>
    </message>
    <message>
        <source>Open others</source>
        <translation>Andere öffnen</translation>
    </message>
    <message>
        <source>All frames are darks, and none shows the scene.</source>
        <translation>Alle Aufnahmen sind Dunkelbilder, keine zeigt die Szene.</translation>
    </message>
    <message>
        <source>They show the scene</source>
        <translation>Sie zeigen die Szene</translation>
    </message>
    <message>
        <source>Gives all frames the role Scene, so that they are merged</source>
        <translation>Gibt allen Aufnahmen die Rolle Szene, sodass sie vereint werden</translation>
    </message>
    <message>
        <source>All frames are set aside: none is left to merge.</source>
        <translation>Alle Aufnahmen liegen beiseite: Keine ist übrig, um vereint zu werden.</translation>
    </message>
    <message>
        <source>Merges all frames of the scene again</source>
        <translation>Vereint wieder alle Aufnahmen der Szene</translation>
    </message>
    <message>
        <source>No other frame came to lie on the reference, so that it stands alone.</source>
        <translation>Keine andere Aufnahme kam auf der Referenz zu liegen: Sie steht allein.</translation>
    </message>
    <message>
        <source>Leave them as shot</source>
        <translation>Lassen wie aufgenommen</translation>
    </message>
    <message>
        <source>Merges the frames where they were taken, not aligned</source>
        <translation>Vereint die Aufnahmen, wie sie aufgenommen sind, ohne sie auszurichten</translation>
    </message>
    <message>
        <source>The frames have no area in common to crop to. All that any reaches is shown.</source>
        <translation>Die Aufnahmen haben kein gemeinsames Gebiet, auf das sich zuschneiden ließe. Gezeigt wird alles, was eine erreicht.</translation>
    </message>
    <message>
        <source>Shows and exports all that any frame reaches</source>
        <translation>Zeigt und exportiert alles, was eine Aufnahme erreicht</translation>
    </message>
    <message>
        <source>Opens frames or a pile</source>
        <translation>Öffnet Aufnahmen oder einen Stapel</translation>
    </message>
</context>
<context>
    <name>bp::app::PartTarget</name>
    <message>
        <source>Switch to Frame to paint a part of it.</source>
        <translation>Wechsle zu Aufnahme, um einen Teil davon zu malen.</translation>
    </message>
    <message>
        <source>Flip to the frame whose part you want, and paint there.</source>
        <translation>Wechsle zu der Aufnahme, deren Teil du willst, und male dort.</translation>
    </message>
    <message>
        <source>This frame cannot be used.</source>
        <translation>Diese Aufnahme ist nicht zu gebrauchen.</translation>
    </message>
    <message>
        <source>Keep</source>
        <translation>Behalten</translation>
    </message>
    <message>
        <source>Give back</source>
        <translation>Zurückgeben</translation>
    </message>
</context>
<context>
    <name>bp::app::PartsList</name>
    <message>
        <source>%1%</source>
        <translation>%1&#xa0;%</translation>
    </message>
    <message>
        <source>Parts, the uppermost first</source>
        <translation>Teile, das oberste zuerst</translation>
    </message>
    <message>
        <source>The tick shows or hides a part; drag a row to lay the part over others or under them. Press F2 or double-click to name it.</source>
        <translation>Der Haken zeigt oder verbirgt ein Teil; zieh eine Zeile, um das Teil über oder unter andere zu legen. F2 oder ein Doppelklick benennt es.</translation>
    </message>
    <message>
        <source>Show part</source>
        <translation>Teil zeigen</translation>
    </message>
    <message>
        <source>Hide part</source>
        <translation>Teil verbergen</translation>
    </message>
    <message>
        <source>Name part</source>
        <translation>Teil benennen</translation>
    </message>
    <message>
        <source>Move part</source>
        <translation>Teil bewegen</translation>
    </message>
    <message>
        <source>Strength of the part</source>
        <translation>Stärke des Teils</translation>
    </message>
    <message>
        <source>How strongly the part covers what lies below</source>
        <translation>Wie stark das Teil deckt, was darunter liegt</translation>
    </message>
    <message>
        <source>How the part joins what lies below</source>
        <translation>Wie sich das Teil mit dem verbindet, was darunter liegt</translation>
    </message>
    <message>
        <source>Whether the part lies over what is below, shows only where it is lighter or darker, or adds its light</source>
        <translation>Ob das Teil über dem Darunter liegt, nur erscheint, wo es heller oder dunkler ist, oder sein Licht addiert</translation>
    </message>
    <message>
        <source>How the edge of the part runs</source>
        <translation>Wie der Rand des Teils verläuft</translation>
    </message>
    <message>
        <source>As painted; where the frames agree best, within a band about where it was painted; or blended: there as well, and differences of light and colour vanish over it</source>
        <translation>Wie gemalt; wo die Aufnahmen am besten übereinstimmen, in einem Band um den gemalten Rand; oder überblendet: auch dort, und Unterschiede in Licht und Farbe verschwinden darüber</translation>
    </message>
    <message>
        <source>Band of the edge</source>
        <translation>Band des Randes</translation>
    </message>
    <message>
        <source>How far from where it was painted the edge may run, to both sides together</source>
        <translation>Wie weit vom gemalten Verlauf der Rand abweichen darf, nach beiden Seiten zusammen</translation>
    </message>
    <message>
        <source>%1 px</source>
        <translation>%1 px</translation>
    </message>
    <message>
        <source>Lay the part over the next one</source>
        <translation>Das Teil über das nächste legen</translation>
    </message>
    <message>
        <source>Lay the part under the next one</source>
        <translation>Das Teil unter das nächste legen</translation>
    </message>
    <message>
        <source>Remove the part</source>
        <translation>Teil entfernen</translation>
    </message>
    <message>
        <source>Strength of part</source>
        <translation>Stärke des Teils</translation>
    </message>
    <message>
        <source>Join: %1</source>
        <translation>Verbinden: %1</translation>
    </message>
    <message>
        <source>Remove part</source>
        <translation>Teil entfernen</translation>
    </message>
    <message>
        <source>%1% of it lies under %2.</source>
        <translation>%1&#xa0;% davon liegen unter %2.</translation>
    </message>
    <message>
        <source>From frame %1</source>
        <translation>Aus Aufnahme %1</translation>
    </message>
</context>
<context>
    <name>bp::app::PartsLook</name>
    <message>
        <source>No look</source>
        <translation>Kein Look</translation>
    </message>
    <message>
        <source>Takes tone and colour of the part back to those of its frame</source>
        <translation>Nimmt Ton und Farbe des Teils zurück auf die seiner Aufnahme</translation>
    </message>
    <message>
        <source>%1 of part</source>
        <translation>%1 des Teils</translation>
    </message>
    <message>
        <source>No look of part</source>
        <translation>Kein Look des Teils</translation>
    </message>
    <message>
        <source>On top of its frame&apos;s own look: %1.</source>
        <translation>Auf dem eigenen Look seiner Aufnahme: %1.</translation>
    </message>
    <message>
        <source>Choose a part in the list below.</source>
        <translation>Wähle unten ein Teil in der Liste.</translation>
    </message>
</context>
<context>
    <name>bp::app::PartsMask</name>
    <message>
        <source>Keep</source>
        <translation>Behalten</translation>
    </message>
    <message>
        <source>What is drawn shows the part&apos;s frame, too (K)</source>
        <translation>Was gezeichnet wird, zeigt auch die Aufnahme des Teils (K)</translation>
    </message>
    <message>
        <source>Give back</source>
        <translation>Zurückgeben</translation>
    </message>
    <message>
        <source>What is drawn shows what lies below again (K)</source>
        <translation>Was gezeichnet wird, zeigt wieder, was darunter liegt (K)</translation>
    </message>
    <message>
        <source>Ellipse</source>
        <translation>Ellipse</translation>
    </message>
    <message>
        <source>Drag over the picture: an ellipse</source>
        <translation>Zieh über das Bild: eine Ellipse</translation>
    </message>
    <message>
        <source>Ramp</source>
        <translation>Verlauf</translation>
    </message>
    <message>
        <source>Drag from where it is to be whole to where nothing is left: a ramp over all of the picture</source>
        <translation>Zieh von dort, wo es ganz sein soll, dorthin, wo nichts mehr bleibt: ein Verlauf über das ganze Bild</translation>
    </message>
    <message>
        <source>Alike</source>
        <translation>Ähnliches</translation>
    </message>
    <message>
        <source>Click on a place: what is like it in brightness and colour</source>
        <translation>Klick auf eine Stelle: was ihr in Helligkeit und Farbe ähnlich ist</translation>
    </message>
    <message>
        <source>Reach</source>
        <translation>Reichweite</translation>
    </message>
    <message>
        <source>How far brightness and colour may differ from those of the place</source>
        <translation>Wie weit Helligkeit und Farbe von denen der Stelle abweichen dürfen</translation>
    </message>
    <message>
        <source>%1%</source>
        <translation>%1&#xa0;%</translation>
    </message>
    <message>
        <source>Everywhere</source>
        <translation>Überall</translation>
    </message>
    <message>
        <source>Not only what hangs together with the place</source>
        <translation>Nicht nur, was mit der Stelle zusammenhängt</translation>
    </message>
    <message>
        <source>All of the mask</source>
        <translation>Die ganze Maske</translation>
    </message>
    <message>
        <source>By</source>
        <translation>Um</translation>
    </message>
    <message>
        <source>How far the border moves, or over how many pixels it is softened</source>
        <translation>Wie weit die Grenze rückt, oder über wie viele Pixel sie weich wird</translation>
    </message>
    <message>
        <source>%1 px</source>
        <translation>%1 px</translation>
    </message>
    <message>
        <source>Grow</source>
        <translation>Wachsen</translation>
    </message>
    <message>
        <source>Moves the border of the part outwards</source>
        <translation>Rückt die Grenze des Teils nach außen</translation>
    </message>
    <message>
        <source>Shrink</source>
        <translation>Schrumpfen</translation>
    </message>
    <message>
        <source>Moves the border of the part inwards</source>
        <translation>Rückt die Grenze des Teils nach innen</translation>
    </message>
    <message>
        <source>Soften</source>
        <translation>Weich</translation>
    </message>
    <message>
        <source>Makes the border of the part fall over so many pixels</source>
        <translation>Lässt die Grenze des Teils über so viele Pixel fallen</translation>
    </message>
    <message>
        <source>Swap</source>
        <translation>Tauschen</translation>
    </message>
    <message>
        <source>Keeps what was not kept, and gives back what was</source>
        <translation>Behält, was nicht behalten war, und gibt zurück, was es war</translation>
    </message>
    <message>
        <source>Clear</source>
        <translation>Leeren</translation>
    </message>
    <message>
        <source>Keeps nothing of the part; it stays in the list</source>
        <translation>Behält nichts vom Teil; es bleibt in der Liste</translation>
    </message>
    <message>
        <source>%1 mask</source>
        <translation>%1 Maske</translation>
    </message>
    <message>
        <source>Copy the mask to another part</source>
        <translation>Die Maske auf ein anderes Teil kopieren</translation>
    </message>
    <message>
        <source>Gives another part the same mask</source>
        <translation>Gibt einem anderen Teil dieselbe Maske</translation>
    </message>
    <message>
        <source>Copy mask</source>
        <translation>Maske kopieren</translation>
    </message>
    <message>
        <source>Shapes are drawn into the part from frame %1.</source>
        <translation>Formen werden in das Teil aus Aufnahme %1 gezeichnet.</translation>
    </message>
    <message>
        <source>Shapes are drawn into the chosen part: %1.</source>
        <translation>Formen werden in das gewählte Teil gezeichnet: %1.</translation>
    </message>
    <message>
        <source>Choose a part in the list, or flip to the frame whose part you want.</source>
        <translation>Wähle ein Teil in der Liste, oder wechsle zu der Aufnahme, deren Teil du willst.</translation>
    </message>
    <message>
        <source>Copy to part…</source>
        <translation>Auf Teil kopieren…</translation>
    </message>
</context>
<context>
    <name>bp::app::PartsPaint</name>
    <message>
        <source>Keep</source>
        <translation>Behalten</translation>
    </message>
    <message>
        <source>Paints: what you paint over shows this frame (K)</source>
        <translation>Malt: was übermalt ist, zeigt diese Aufnahme (K)</translation>
    </message>
    <message>
        <source>Give back</source>
        <translation>Zurückgeben</translation>
    </message>
    <message>
        <source>Paints: what you paint over shows what lies below again (K)</source>
        <translation>Malt: was übermalt ist, zeigt wieder, was darunter liegt (K)</translation>
    </message>
    <message>
        <source>Lit frames</source>
        <translation>Beleuchtete Aufnahmen</translation>
    </message>
    <message>
        <source>Exposures of the foreground. The tick shows what such a light gives: the frame counts where it is lighter. Choose one to see it.</source>
        <translation>Belichtungen des Vordergrunds. Der Haken zeigt, was ein solches Licht gibt: die Aufnahme zählt, wo sie heller ist. Wähle eine, um sie zu sehen.</translation>
    </message>
    <message>
        <source>All on</source>
        <translation>Alle an</translation>
    </message>
    <message>
        <source>Every lit frame shows where it is lighter</source>
        <translation>Jede beleuchtete Aufnahme erscheint, wo sie heller ist</translation>
    </message>
    <message>
        <source>Light on</source>
        <translation>Licht an</translation>
    </message>
    <message>
        <source>Light off</source>
        <translation>Licht aus</translation>
    </message>
    <message>
        <source>Hold the place</source>
        <translation>Stelle halten</translation>
    </message>
    <message>
        <source>The rail shows what every frame has where the pointer is, as wide as the brush. Held, it stays there: a click on a frame takes the place from it, one more click more of it, a click with Shift gives it back (T)</source>
        <translation>Die Leiste zeigt, was jede Aufnahme beim Zeiger hat, so breit wie der Pinsel. Gehalten bleibt es: ein Klick auf eine Aufnahme nimmt die Stelle von ihr, noch einer mehr davon, einer mit Umschalt gibt zurück (T)</translation>
    </message>
    <message>
        <source>Take it</source>
        <translation>Nehmen</translation>
    </message>
    <message>
        <source>Takes what belongs to the held place from the frame that is chosen</source>
        <translation>Nimmt, was zur gehaltenen Stelle gehört, aus der gewählten Aufnahme</translation>
    </message>
    <message>
        <source>Paint over what you want of frame %1.</source>
        <translation>Übermale, was du von Aufnahme %1 willst.</translation>
    </message>
    <message>
        <source>Painting works on the chosen part, from frame %1.</source>
        <translation>Gemalt wird am gewählten Teil, aus Aufnahme %1.</translation>
    </message>
    <message>
        <source>Point at a place and hold T: a click on a frame below takes it from there. Or flip to Frame and paint.</source>
        <translation>Zeig auf eine Stelle und halte T: ein Klick auf eine Aufnahme unten nimmt sie von dort. Oder wechsle zu Aufnahme und male.</translation>
    </message>
    <message>
        <source>Frame %1</source>
        <translation>Aufnahme %1</translation>
    </message>
    <message>
        <source>%1: %2</source>
        <translation>%1: %2</translation>
    </message>
    <message>
        <source>Tick it to see what this light gives.</source>
        <translation>Ein Haken zeigt, was dieses Licht gibt.</translation>
    </message>
</context>
<context>
    <name>bp::app::PartsPlace</name>
    <message>
        <source>the part</source>
        <translation>das Teil</translation>
    </message>
    <message>
        <source>Mirrored</source>
        <translation>Gespiegelt</translation>
    </message>
    <message>
        <source>Lays the part down left for right</source>
        <translation>Legt das Teil seitenverkehrt hin</translation>
    </message>
    <message>
        <source>Put back</source>
        <translation>Zurücklegen</translation>
    </message>
    <message>
        <source>Lays the part where its frame has it</source>
        <translation>Legt das Teil dorthin, wo seine Aufnahme es hat</translation>
    </message>
    <message>
        <source>Canvas</source>
        <translation>Fläche</translation>
    </message>
    <message>
        <source>Place part</source>
        <translation>Teil legen</translation>
    </message>
    <message>
        <source>Mirror part</source>
        <translation>Teil spiegeln</translation>
    </message>
    <message>
        <source>Put part back</source>
        <translation>Teil zurücklegen</translation>
    </message>
    <message>
        <source>There are no parts yet: paint one, or take a place from a frame.</source>
        <translation>Es gibt noch keine Teile: male eines, oder nimm eine Stelle aus einer Aufnahme.</translation>
    </message>
    <message>
        <source>Drag the part, turn it by the ring, scale it by the knot. It is drawn to the edges and the middle of the canvas.</source>
        <translation>Zieh das Teil, dreh es am Ring, vergrößere es am Knoten. Ränder und Mitte der Fläche ziehen es an.</translation>
    </message>
    <message>
        <source>Click on a part in the picture, or choose one in the list.</source>
        <translation>Klick auf ein Teil im Bild, oder wähle eines in der Liste.</translation>
    </message>
</context>
<context>
    <name>bp::app::PartsPointing</name>
    <message>
        <source>Hide part</source>
        <translation>Teil verbergen</translation>
    </message>
    <message>
        <source>Show part</source>
        <translation>Teil zeigen</translation>
    </message>
</context>
<context>
    <name>bp::app::PartsSequence</name>
    <message>
        <source>Find what moves</source>
        <translation>Bewegtes suchen</translation>
    </message>
    <message>
        <source>Looks for what moves against the cleared scene, with its shadow and mirror, and shows it in as many places as lie apart. What you changed stays</source>
        <translation>Sucht, was sich gegen die freie Szene bewegt, mit Schatten und Spiegelbild, und zeigt es an so vielen Orten, wie getrennt liegen. Was du geändert hast, bleibt</translation>
    </message>
    <message>
        <source>Subjects</source>
        <translation>Motive</translation>
    </message>
    <message>
        <source>Take the tick away to leave a subject out of the picture.</source>
        <translation>Nimm den Haken weg, um ein Motiv aus dem Bild zu lassen.</translation>
    </message>
    <message>
        <source>Show all</source>
        <translation>Alle zeigen</translation>
    </message>
    <message>
        <source>Every subject shows</source>
        <translation>Jedes Motiv erscheint</translation>
    </message>
    <message>
        <source>Show a subject</source>
        <translation>Motiv zeigen</translation>
    </message>
    <message>
        <source>Leave a subject out</source>
        <translation>Motiv weglassen</translation>
    </message>
    <message>
        <source>Apart</source>
        <translation>Abstand</translation>
    </message>
    <message>
        <source>How far apart the places of a subject lie, in lengths of it: further apart shows fewer</source>
        <translation>Wie weit die Orte eines Motivs auseinanderliegen, in seinen Längen: weiter zeigt weniger</translation>
    </message>
    <message>
        <source>%1 lengths</source>
        <translation>%1 Längen</translation>
    </message>
    <message>
        <source>Early on top</source>
        <translation>Frühes oben</translation>
    </message>
    <message>
        <source>Earlier places lie over later ones</source>
        <translation>Frühere Orte liegen über späteren</translation>
    </message>
    <message>
        <source>Late on top</source>
        <translation>Spätes oben</translation>
    </message>
    <message>
        <source>Later places lie over earlier ones</source>
        <translation>Spätere Orte liegen über früheren</translation>
    </message>
    <message>
        <source>Show every so many frames</source>
        <translation>Jede so vielte Aufnahme zeigen</translation>
    </message>
    <message>
        <source>So many frames lie from one place that shows to the next</source>
        <translation>So viele Aufnahmen liegen von einem gezeigten Ort zum nächsten</translation>
    </message>
    <message>
        <source>every </source>
        <translation>jede </translation>
    </message>
    <message>
        <source>Show these</source>
        <translation>Diese zeigen</translation>
    </message>
    <message>
        <source>Shows the places of every so many frames, whether they cover each other or not</source>
        <translation>Zeigt die Orte jeder so vielten Aufnahme, ob sie sich verdecken oder nicht</translation>
    </message>
    <message>
        <source>Leave the covered out</source>
        <translation>Verdeckte weglassen</translation>
    </message>
    <message>
        <source>Leaves out what is covered by what lies above it</source>
        <translation>Lässt weg, was von dem verdeckt ist, was darüber liegt</translation>
    </message>
    <message>
        <source>Cut between them</source>
        <translation>Dazwischen schneiden</translation>
    </message>
    <message>
        <source>Lets two places that cover each other part in the middle of where they meet</source>
        <translation>Lässt zwei Orte, die sich verdecken, in der Mitte ihrer Begegnung auseinandergehen</translation>
    </message>
    <message numerus="yes">
        <source>Every %n frame(s)</source>
        <translation>
            <numerusform>Jede %n. Aufnahme</numerusform>
            <numerusform>Jede %n. Aufnahme</numerusform>
        </translation>
    </message>
    <message>
        <source>Subject %1: %2 of %3 places</source>
        <translation>Motiv %1: %2 von %3 Orten</translation>
    </message>
    <message>
        <source>Take the tick away to leave it out of the picture.</source>
        <translation>Nimm den Haken weg, um es aus dem Bild zu lassen.</translation>
    </message>
    <message numerus="yes">
        <source>%n place(s) cover others, the first that of frame %1 by that of frame %2.</source>
        <translation>
            <numerusform>%n Ort verdeckt andere, der aus Aufnahme %1 den aus Aufnahme %2.</numerusform>
            <numerusform>%n Orte verdecken andere, zuerst der aus Aufnahme %1 den aus Aufnahme %2.</numerusform>
        </translation>
    </message>
    <message>
        <source>For a subject that crosses the scene: it is shown in as many places as lie apart.</source>
        <translation>Für ein Motiv, das durch die Szene zieht: Es erscheint an so vielen Orten, wie getrennt liegen.</translation>
    </message>
</context>
<context>
    <name>bp::app::PartsShower</name>
    <message>
        <source>Find meteors</source>
        <translation>Meteore suchen</translation>
    </message>
    <message>
        <source>Aligns the frames by their stars and lays the meteors of all of them over the picture, each without the sky of its own frame. What you changed stays</source>
        <translation>Richtet die Aufnahmen nach ihren Sternen aus und legt die Meteore aller über das Bild, jeden ohne den Himmel seiner Aufnahme. Was du geändert hast, bleibt</translation>
    </message>
    <message>
        <source>Show all</source>
        <translation>Alle zeigen</translation>
    </message>
    <message>
        <source>All meteors at once. The list below has them one by one</source>
        <translation>Alle Meteore auf einmal. Die Liste darunter hat sie einzeln</translation>
    </message>
    <message>
        <source>Show all meteors</source>
        <translation>Alle Meteore zeigen</translation>
    </message>
    <message>
        <source>Hide all meteors</source>
        <translation>Alle Meteore verbergen</translation>
    </message>
    <message>
        <source>For frames of one night, with stars: each meteor comes to where it was among them.</source>
        <translation>Für Aufnahmen einer Nacht, mit Sternen: jeder Meteor kommt dorthin, wo er unter ihnen war.</translation>
    </message>
    <message>
        <source>%1 of %2 meteors show. Click one to pull its ends and its side.</source>
        <translation>%1 von %2 Meteoren erscheinen. Klick einen an, um seine Enden und seine Seite zu ziehen.</translation>
    </message>
    <message>
        <source>Hide all</source>
        <translation>Alle verbergen</translation>
    </message>
</context>
<context>
    <name>bp::app::PartsStep</name>
    <message>
        <source>Paint</source>
        <translation>Malen</translation>
    </message>
    <message>
        <source>Paint over what you want of a frame, and switch lit frames on</source>
        <translation>Übermale, was du von einer Aufnahme willst, und schalte beleuchtete Aufnahmen an</translation>
    </message>
    <message>
        <source>Sequence</source>
        <translation>Folge</translation>
    </message>
    <message>
        <source>One subject in many places</source>
        <translation>Ein Motiv an vielen Orten</translation>
    </message>
    <message>
        <source>Shower</source>
        <translation>Schauer</translation>
    </message>
    <message>
        <source>The meteors of all frames over one</source>
        <translation>Die Meteore aller Aufnahmen über einer</translation>
    </message>
    <message>
        <source>Place</source>
        <translation>Lage</translation>
    </message>
    <message>
        <source>Move, turn and scale parts, on a canvas as large as the print</source>
        <translation>Teile bewegen, drehen und vergrößern, auf einer Fläche so groß wie der Druck</translation>
    </message>
    <message>
        <source>Mask</source>
        <translation>Maske</translation>
    </message>
    <message>
        <source>Ellipses, ramps and what is alike; the mask grown, softened, swapped</source>
        <translation>Ellipsen, Verläufe und Ähnliches; die Maske gewachsen, weich, getauscht</translation>
    </message>
    <message>
        <source>Look</source>
        <translation>Look</translation>
    </message>
    <message>
        <source>Tone and colour of the chosen part alone</source>
        <translation>Ton und Farbe nur des gewählten Teils</translation>
    </message>
    <message>
        <source>none</source>
        <translation>keine</translation>
    </message>
    <message>
        <source>1 part: %1, frame %2</source>
        <translation>1 Teil: %1, Aufnahme %2</translation>
    </message>
    <message>
        <source>%1 parts, %2 shown</source>
        <translation>%1 Teile, %2 sichtbar</translation>
    </message>
    <message>
        <source>Parts</source>
        <translation>Teile</translation>
    </message>
</context>
<context>
    <name>bp::app::PlaceNumbers</name>
    <message>
        <source>Across</source>
        <translation>Quer</translation>
    </message>
    <message>
        <source>How far the middle of %1 lies to the right</source>
        <translation>Wie weit rechts die Mitte liegt: %1</translation>
    </message>
    <message>
        <source> px</source>
        <translation> px</translation>
    </message>
    <message>
        <source>Down</source>
        <translation>Hoch</translation>
    </message>
    <message>
        <source>How far the middle of %1 lies further down</source>
        <translation>Wie weit unten die Mitte liegt: %1</translation>
    </message>
    <message>
        <source>Turn</source>
        <translation>Kippen</translation>
    </message>
    <message>
        <source>By how much %1 is turned, with the clock</source>
        <translation>Um wie viel im Uhrzeigersinn gedreht: %1</translation>
    </message>
    <message>
        <source>°</source>
        <translation>°</translation>
    </message>
    <message>
        <source>Scale</source>
        <translation>Maßstab</translation>
    </message>
    <message>
        <source>How much larger %1 is laid down</source>
        <translation>Um wie viel größer hingelegt: %1</translation>
    </message>
</context>
<context>
    <name>bp::app::PlaceTarget</name>
    <message>
        <source>Switch to Result: places are painted in the finished picture.</source>
        <translation>Wechsle zu Ergebnis: Stellen werden im vollendeten Bild gemalt.</translation>
    </message>
    <message>
        <source>Choose a place in the list, or make a new one first.</source>
        <translation>Wähle eine Stelle in der Liste, oder mach erst eine neue.</translation>
    </message>
    <message>
        <source>Keep</source>
        <translation>Behalten</translation>
    </message>
    <message>
        <source>Give back</source>
        <translation>Zurückgeben</translation>
    </message>
</context>
<context>
    <name>bp::app::PlayBar</name>
    <message>
        <source>Play</source>
        <translation>Abspielen</translation>
    </message>
    <message>
        <source>Frames a second</source>
        <translation>Aufnahmen je Sekunde</translation>
    </message>
    <message>
        <source>How many frames a second, at most</source>
        <translation>Wie viele Aufnahmen je Sekunde, höchstens</translation>
    </message>
    <message>
        <source>%1 a second</source>
        <translation>%1 je Sekunde</translation>
    </message>
    <message>
        <source>Stop</source>
        <translation>Anhalten</translation>
    </message>
</context>
<context>
    <name>bp::app::PlumbChart</name>
    <message>
        <source>What every frame has here</source>
        <translation>Was jede Aufnahme hier hat</translation>
    </message>
    <message>
        <source>Left and Right choose a frame</source>
        <translation>Links und Rechts wählen eine Aufnahme</translation>
    </message>
    <message>
        <source>The point in every frame, over the run, by channel. Ringed in amber: the frame that shows. A click chooses a frame</source>
        <translation>Der Punkt in jeder Aufnahme, über den Lauf, nach Kanälen. Bernstein umringt: die sichtbare Aufnahme. Ein Klick wählt eine</translation>
    </message>
    <message>
        <source>%1%</source>
        <translation>%1&#xa0;%</translation>
    </message>
</context>
<context>
    <name>bp::app::PlumbPanel</name>
    <message>
        <source>Plumb</source>
        <translation>Lot</translation>
    </message>
    <message>
        <source>Go to this frame</source>
        <translation>Zu dieser Aufnahme</translation>
    </message>
    <message>
        <source>Shows the frame itself, at this place</source>
        <translation>Zeigt die Aufnahme selbst, an dieser Stelle</translation>
    </message>
    <message>
        <source>Set this frame aside</source>
        <translation>Diese Aufnahme beiseite</translation>
    </message>
    <message>
        <source>Leaves the frame out of the picture without forgetting it</source>
        <translation>Lässt die Aufnahme aus dem Bild, ohne sie zu vergessen</translation>
    </message>
    <message>
        <source>Leave this place out</source>
        <translation>Diese Stelle weglassen</translation>
    </message>
    <message>
        <source>This frame gives nothing to the picture here, in a circle of the size below</source>
        <translation>Diese Aufnahme gibt dem Bild hier nichts, in einem Kreis der Größe darunter</translation>
    </message>
    <message>
        <source>Size of the place</source>
        <translation>Größe der Stelle</translation>
    </message>
    <message>
        <source>How wide a circle is left out</source>
        <translation>Wie weit ein Kreis weggelassen wird</translation>
    </message>
    <message>
        <source>%1 px</source>
        <translation>%1 px</translation>
    </message>
    <message>
        <source>The place in every frame</source>
        <translation>Die Stelle in jeder Aufnahme</translation>
    </message>
    <message>
        <source>Shows a small piece of every frame around the point</source>
        <translation>Zeigt von jeder Aufnahme ein kleines Stück um den Punkt</translation>
    </message>
    <message>
        <source>Set frame %1 aside</source>
        <translation>Aufnahme %1 beiseitelegen</translation>
    </message>
    <message>
        <source>Click on the picture: the point is seen through all frames.</source>
        <translation>Klick ins Bild: der Punkt wird durch alle Aufnahmen gesehen.</translation>
    </message>
    <message>
        <source>x %1, y %2</source>
        <translation>x %1, y %2</translation>
    </message>
    <message>
        <source>x %1, y %2, in squares of %3 px</source>
        <translation>x %1, y %2, in Quadraten von %3 px</translation>
    </message>
    <message>
        <source>The result, %1, comes from all frames together.</source>
        <translation>Das Ergebnis, %1, kommt aus allen Aufnahmen zusammen.</translation>
    </message>
    <message>
        <source>Frame %1 shows here: %2.</source>
        <translation>Aufnahme %1 erscheint hier: %2.</translation>
    </message>
    <message>
        <source>Frames %1 and %2 show here: %3.</source>
        <translation>Die Aufnahmen %1 und %2 erscheinen hier: %3.</translation>
    </message>
    <message>
        <source>Frame %1</source>
        <translation>Aufnahme %1</translation>
    </message>
    <message>
        <source>does not reach here</source>
        <translation>reicht nicht hierher</translation>
    </message>
    <message>
        <source>left out here</source>
        <translation>hier weggelassen</translation>
    </message>
    <message>
        <source>%1: %2</source>
        <translation>%1: %2</translation>
    </message>
    <message>
        <source>Leave a place of frame %1 out</source>
        <translation>Eine Stelle von Aufnahme %1 weglassen</translation>
    </message>
    <message>
        <source>strength %1%</source>
        <translation>Stärke %1&#xa0;%</translation>
    </message>
</context>
<context>
    <name>bp::app::PlumbPatches</name>
    <message>
        <source>The place in every frame</source>
        <translation>Die Stelle in jeder Aufnahme</translation>
    </message>
    <message>
        <source>The place in every frame. Framed in amber: the one that shows. A click chooses a frame</source>
        <translation>Die Stelle in jeder Aufnahme. Bernstein umrahmt: die sichtbare. Ein Klick wählt eine Aufnahme</translation>
    </message>
    <message>
        <source>%1 out</source>
        <translation>%1 weg</translation>
    </message>
</context>
<context>
    <name>bp::app::Preferences</name>
    <message>
        <source>Preferences</source>
        <translation>Einstellungen</translation>
    </message>
    <message>
        <source>Room</source>
        <translation>Platz</translation>
    </message>
    <message>
        <source>Done</source>
        <translation>Fertig</translation>
    </message>
    <message>
        <source>Everything holds already</source>
        <translation>Alles gilt schon</translation>
    </message>
    <message>
        <source>Looks</source>
        <translation>Aussehen</translation>
    </message>
    <message>
        <source>Theme</source>
        <translation>Thema</translation>
    </message>
    <message>
        <source>A dark or a light window</source>
        <translation>Ein dunkles oder helles Fenster</translation>
    </message>
    <message>
        <source>Dusk: dark</source>
        <translation>Dämmerung: dunkel</translation>
    </message>
    <message>
        <source>Noon: light</source>
        <translation>Mittag: hell</translation>
    </message>
    <message>
        <source>Size of type</source>
        <translation>Schriftgröße</translation>
    </message>
    <message>
        <source>How large words and controls are. The picture keeps its pixels.</source>
        <translation>Wie groß Wörter und Bedienung sind. Das Bild behält seine Pixel.</translation>
    </message>
    <message>
        <source>%1%</source>
        <translation>%1&#xa0;%</translation>
    </message>
    <message>
        <source>The size holds from the next start of the program on.</source>
        <translation>Die Größe gilt ab dem nächsten Start des Programms.</translation>
    </message>
    <message>
        <source>Display</source>
        <translation>Bildschirm</translation>
    </message>
    <message>
        <source>Profile of the display</source>
        <translation>Profil des Bildschirms</translation>
    </message>
    <message>
        <source>What the screen&apos;s colours are: pictures are brought to them. Exports stay as they are.</source>
        <translation>Wie die Farben des Bildschirms sind: Bilder werden dorthin gebracht. Ausgaben bleiben, wie sie sind.</translation>
    </message>
    <message>
        <source>As the system tells of this screen</source>
        <translation>Wie das System es von diesem Bildschirm sagt</translation>
    </message>
    <message>
        <source>As sRGB</source>
        <translation>Wie sRGB</translation>
    </message>
    <message>
        <source>A profile from a file…</source>
        <translation>Ein Profil aus einer Datei…</translation>
    </message>
    <message>
        <source>Profiles (*.icc *.icm)</source>
        <translation>Profile (*.icc *.icm)</translation>
    </message>
    <message>
        <source>The system tells no profile of this screen: sRGB</source>
        <translation>Das System nennt kein Profil dieses Bildschirms: sRGB</translation>
    </message>
    <message>
        <source>Where dialogs begin</source>
        <translation>Wo Dialoge beginnen</translation>
    </message>
    <message>
        <source>Frames</source>
        <translation>Aufnahmen</translation>
    </message>
    <message>
        <source>Piles</source>
        <translation>Stapel</translation>
    </message>
    <message>
        <source>Pictures</source>
        <translation>Bilder</translation>
    </message>
    <message>
        <source>The folder that was used last. Choose another</source>
        <translation>Der zuletzt benutzte Ordner. Wähle einen anderen</translation>
    </message>
    <message>
        <source>Folder for %1</source>
        <translation>Ordner für %1</translation>
    </message>
    <message>
        <source>Start again now</source>
        <translation>Jetzt neu starten</translation>
    </message>
    <message>
        <source>Ends the program and starts it anew with what is open; unsaved edits are asked about first</source>
        <translation>Beendet das Programm und startet es neu mit dem, was offen ist; nach ungesicherten Änderungen wird vorher gefragt</translation>
    </message>
</context>
<context>
    <name>bp::app::Recovery</name>
    <message>
        <source>unsaved work</source>
        <translation>ungesicherte Arbeit</translation>
    </message>
    <message>
        <source>%1 has been taken up elsewhere meanwhile.</source>
        <translation>%1 wurde inzwischen anderswo aufgenommen.</translation>
    </message>
    <message>
        <source>Unsaved work is not kept for the case of a crash: %1 Save often.</source>
        <translation>Ungesicherte Arbeit wird für einen Absturz nicht aufgehoben: %1 Sichere oft.</translation>
    </message>
</context>
<context>
    <name>bp::app::SecondsBox</name>
    <message>
        <source> s</source>
        <translation> s</translation>
    </message>
</context>
<context>
    <name>bp::app::StartScreen</name>
    <message>
        <source>What shall the pile become?</source>
        <translation>Was soll der Stapel werden?</translation>
    </message>
    <message>
        <source>Choose an outcome, then your frames. It only sets first values and can be changed at any time.</source>
        <translation>Wähle ein Ziel, dann deine Aufnahmen. Es setzt nur erste Werte und lässt sich jederzeit ändern.</translation>
    </message>
    <message>
        <source>Open a pile or frames…</source>
        <translation>Stapel oder Aufnahmen öffnen…</translation>
    </message>
    <message>
        <source>Opens a saved pile, or frames as Trails</source>
        <translation>Öffnet einen gesicherten Stapel, oder Aufnahmen als Spuren</translation>
    </message>
    <message>
        <source>Open a folder…</source>
        <translation>Ordner öffnen…</translation>
    </message>
    <message>
        <source>Opens all pictures in a folder as Trails (Ctrl+Shift+O)</source>
        <translation>Öffnet alle Bilder in einem Ordner als Spuren (Strg+Umschalt+O)</translation>
    </message>
    <message>
        <source>Like a pile…</source>
        <translation>Wie ein Stapel…</translation>
    </message>
    <message>
        <source>Go on with</source>
        <translation>Weiter mit</translation>
    </message>
    <message>
        <source>Or try it in Skerrow harbour</source>
        <translation>Oder versuche es im Hafen von Skerrow</translation>
    </message>
    <message>
        <source>Take it with the practice camera…</source>
        <translation>Mit der Übungskamera aufnehmen…</translation>
    </message>
    <message>
        <source>Frames come one by one, as from a camera, and the picture grows</source>
        <translation>Aufnahmen kommen einzeln, wie von einer Kamera, und das Bild wächst</translation>
    </message>
    <message>
        <source>%1, %2 frames</source>
        <translation>%1, %2 Aufnahmen</translation>
    </message>
    <message>
        <source>Or drop files and folders anywhere in the window.</source>
        <translation>Oder lass Dateien und Ordner irgendwo im Fenster fallen.</translation>
    </message>
    <message>
        <source>%1 was not saved when the program ended: kept %2</source>
        <translation>%1 war nicht gesichert, als das Programm endete: aufgehoben %2</translation>
    </message>
    <message>
        <source>Take it up</source>
        <translation>Weiterarbeiten</translation>
    </message>
    <message>
        <source>Opens it as it was, with the edits that were not saved</source>
        <translation>Öffnet ihn, wie er war, mit den ungesicherten Änderungen</translation>
    </message>
    <message>
        <source>Throw it away</source>
        <translation>Verwerfen</translation>
    </message>
    <message>
        <source>These edits are lost then; a pile that was saved before stays as it is</source>
        <translation>Diese Änderungen sind dann verloren; ein zuvor gesicherter Stapel bleibt, wie er ist</translation>
    </message>
    <message>
        <source>Throw away the unsaved edits of %1?</source>
        <translation>Die ungesicherten Änderungen von %1 verwerfen?</translation>
    </message>
    <message>
        <source>Keep them</source>
        <translation>Behalten</translation>
    </message>
    <message>
        <source>They are offered again</source>
        <translation>Sie werden wieder angeboten</translation>
    </message>
    <message>
        <source>Throw them away</source>
        <translation>Verwerfen</translation>
    </message>
    <message>
        <source>They are lost</source>
        <translation>Sie sind verloren</translation>
    </message>
</context>
<context>
    <name>bp::app::StepLine</name>
    <message>
        <source>Steps</source>
        <translation>Schritte</translation>
    </message>
    <message>
        <source>Step %1</source>
        <translation>Schritt %1</translation>
    </message>
    <message>
        <source>%1; needs a look</source>
        <translation>%1; bitte ansehen</translation>
    </message>
</context>
<context>
    <name>bp::app::StreakTool</name>
    <message>
        <source>Switch to Frame to draw a streak: it is drawn in the frame that has it.</source>
        <translation>Wechsle zu Aufnahme, um einen Streifen zu zeichnen: er wird in der Aufnahme gezeichnet, die ihn hat.</translation>
    </message>
    <message>
        <source>Draw a streak</source>
        <translation>Streifen zeichnen</translation>
    </message>
    <message>
        <source>Pull a streak</source>
        <translation>Streifen ziehen</translation>
    </message>
</context>
<context>
    <name>bp::app::Studio</name>
    <message>
        <source>Stopped: %1.</source>
        <translation>Angehalten: %1.</translation>
    </message>
    <message>
        <source>%1 is opened; a pile and frames are not opened together.</source>
        <translation>%1 wird geöffnet; ein Stapel und Aufnahmen werden nicht zusammen geöffnet.</translation>
    </message>
    <message>
        <source>opening %1</source>
        <translation>%1 wird geöffnet</translation>
    </message>
    <message>
        <source>opening %1 like %2</source>
        <translation>%1 wird geöffnet wie %2</translation>
    </message>
    <message numerus="yes">
        <source>%n frame(s) missing.</source>
        <translation>
            <numerusform>%n Aufnahme fehlt.</numerusform>
            <numerusform>%n Aufnahmen fehlen.</numerusform>
        </translation>
    </message>
    <message numerus="yes">
        <source>%n frame(s) changed since the pile was saved.</source>
        <translation>
            <numerusform>%n Aufnahme hat sich geändert, seit der Stapel gesichert wurde.</numerusform>
            <numerusform>%n Aufnahmen haben sich geändert, seit der Stapel gesichert wurde.</numerusform>
        </translation>
    </message>
    <message>
        <source>See the Frames step.</source>
        <translation>Siehe Schritt Aufnahmen.</translation>
    </message>
    <message>
        <source>%1 of the frames cannot be used: see the Frames step</source>
        <translation>%1 der Aufnahmen sind nicht zu gebrauchen: siehe Schritt Aufnahmen</translation>
    </message>
    <message>
        <source>%1 are copies of others and set aside</source>
        <translation>%1 sind Kopien anderer und beiseitegelegt</translation>
    </message>
    <message>
        <source>%1 have another colour profile and are converted to %2</source>
        <translation>%1 haben ein anderes Farbprofil und werden nach %2 gebracht</translation>
    </message>
    <message>
        <source>adding frames</source>
        <translation>Aufnahmen kommen hinzu</translation>
    </message>
    <message>
        <source>All of these frames are in the pile already.</source>
        <translation>Alle diese Aufnahmen sind schon im Stapel.</translation>
    </message>
    <message numerus="yes">
        <source>Add %n frame(s)</source>
        <translation>
            <numerusform>%n Aufnahme hinzufügen</numerusform>
            <numerusform>%n Aufnahmen hinzufügen</numerusform>
        </translation>
    </message>
    <message>
        <source>taking up %1</source>
        <translation>%1 wird wieder aufgenommen</translation>
    </message>
    <message>
        <source>Saved %1</source>
        <translation>%1 gesichert</translation>
    </message>
    <message>
        <source>saving %1</source>
        <translation>%1 wird gesichert</translation>
    </message>
    <message>
        <source>looking what a spot is mended from</source>
        <translation>gesucht wird, woraus ein Fleck ausgebessert wird</translation>
    </message>
    <message>
        <source>reading %1</source>
        <translation>%1 wird gelesen</translation>
    </message>
    <message>
        <source>Finish of %1</source>
        <translation>Vollendung von %1</translation>
    </message>
    <message>
        <source>looking for the horizon</source>
        <translation>der Horizont wird gesucht</translation>
    </message>
    <message>
        <source>No horizon was found: no straight edge runs through enough of the picture. Draw a line along what is to be level.</source>
        <translation>Kein Horizont gefunden: keine gerade Kante läuft durch genug des Bildes. Zeichne eine Linie entlang dem, was waagrecht sein soll.</translation>
    </message>
    <message>
        <source>Turn to the horizon that was found</source>
        <translation>Nach dem gefundenen Horizont drehen</translation>
    </message>
    <message>
        <source>Outcome: %1</source>
        <translation>Ziel: %1</translation>
    </message>
    <message>
        <source>%1 found, %2 still missing.</source>
        <translation>%1 gefunden, %2 fehlen noch.</translation>
    </message>
    <message>
        <source>All frames found.</source>
        <translation>Alle Aufnahmen gefunden.</translation>
    </message>
    <message>
        <source>Find missing frames</source>
        <translation>Fehlende Aufnahmen suchen</translation>
    </message>
    <message>
        <source>Take changed frames</source>
        <translation>Geänderte Aufnahmen nehmen</translation>
    </message>
    <message numerus="yes">
        <source>Set aside %n frame(s)</source>
        <translation>
            <numerusform>%n Aufnahme beiseitelegen</numerusform>
            <numerusform>%n Aufnahmen beiseitelegen</numerusform>
        </translation>
    </message>
    <message numerus="yes">
        <source>Take back %n frame(s)</source>
        <translation>
            <numerusform>%n Aufnahme zurückholen</numerusform>
            <numerusform>%n Aufnahmen zurückholen</numerusform>
        </translation>
    </message>
    <message>
        <source>The last frame that can be used stays in the pile.</source>
        <translation>Die letzte brauchbare Aufnahme bleibt im Stapel.</translation>
    </message>
    <message numerus="yes">
        <source>Remove %n frame(s)</source>
        <translation>
            <numerusform>%n Aufnahme entfernen</numerusform>
            <numerusform>%n Aufnahmen entfernen</numerusform>
        </translation>
    </message>
    <message>
        <source>Set aside: %1</source>
        <translation>Beiseite: %1</translation>
    </message>
    <message>
        <source>%1: this was for a pile that is no longer open, and is left out.</source>
        <translation>%1: das war für einen Stapel, der nicht mehr offen ist, und bleibt weg.</translation>
    </message>
    <message>
        <source>Align: none</source>
        <translation>Ausrichten: keines</translation>
    </message>
    <message>
        <source>aligning</source>
        <translation>es wird ausgerichtet</translation>
    </message>
    <message>
        <source>Align: %1</source>
        <translation>Ausrichten: %1</translation>
    </message>
    <message numerus="yes">
        <source>%n frame(s) could not be aligned, and will not be merged.</source>
        <translation>
            <numerusform>%n Aufnahme ließ sich nicht ausrichten und wird nicht vereint.</numerusform>
            <numerusform>%n Aufnahmen ließen sich nicht ausrichten und werden nicht vereint.</numerusform>
        </translation>
    </message>
    <message>
        <source>Suggest sky and land</source>
        <translation>Himmel und Land vorschlagen</translation>
    </message>
    <message>
        <source>Snap sky and land to edges</source>
        <translation>Himmel und Land an Kanten legen</translation>
    </message>
    <message>
        <source>Leave hot pixels</source>
        <translation>Heiße Pixel lassen</translation>
    </message>
    <message>
        <source>looking for hot pixels</source>
        <translation>heiße Pixel werden gesucht</translation>
    </message>
    <message>
        <source>Mend hot pixels</source>
        <translation>Heiße Pixel ausbessern</translation>
    </message>
    <message numerus="yes">
        <source>%n hot pixel(s) mended in all frames.</source>
        <translation>
            <numerusform>%n heißes Pixel in allen Aufnahmen ausgebessert.</numerusform>
            <numerusform>%n heiße Pixel in allen Aufnahmen ausgebessert.</numerusform>
        </translation>
    </message>
    <message>
        <source>Knit the breaks</source>
        <translation>Lücken schließen</translation>
    </message>
    <message>
        <source>Leave breaks open</source>
        <translation>Lücken offen lassen</translation>
    </message>
    <message>
        <source>looking how the lights moved</source>
        <translation>gesucht wird, wie die Lichter sich bewegten</translation>
    </message>
    <message>
        <source>How the stars moved could not be found: that needs four frames or more with their times, and stars in the reference. Nor is there any other light that goes on through three frames.</source>
        <translation>Wie die Sterne sich bewegten, war nicht zu finden: dazu braucht es vier Aufnahmen oder mehr mit ihren Zeiten, und Sterne in der Referenz. Auch kein anderes Licht geht durch drei Aufnahmen weiter.</translation>
    </message>
    <message>
        <source>looking for streaks</source>
        <translation>Streifen werden gesucht</translation>
    </message>
    <message>
        <source>Streaks are looked for among moving stars: that needs four frames or more with their times, and stars in the reference. You can draw them by hand.</source>
        <translation>Streifen werden unter bewegten Sternen gesucht: dazu braucht es vier Aufnahmen oder mehr mit ihren Zeiten, und Sterne in der Referenz. Du kannst sie von Hand zeichnen.</translation>
    </message>
    <message>
        <source>Find streaks</source>
        <translation>Streifen suchen</translation>
    </message>
    <message>
        <source>No streaks were found.</source>
        <translation>Keine Streifen gefunden.</translation>
    </message>
    <message numerus="yes">
        <source>%n streak(s) found.</source>
        <translation>
            <numerusform>%n Streifen gefunden.</numerusform>
            <numerusform>%n Streifen gefunden.</numerusform>
        </translation>
    </message>
    <message>
        <source>looking for what moves</source>
        <translation>Bewegtes wird gesucht</translation>
    </message>
    <message>
        <source>Nothing was found that moves through the frames.</source>
        <translation>Nichts gefunden, was sich durch die Aufnahmen bewegt.</translation>
    </message>
    <message>
        <source>Find what moves</source>
        <translation>Bewegtes suchen</translation>
    </message>
    <message numerus="yes">
        <source>%n subject(s) found.</source>
        <translation>
            <numerusform>%n Motiv gefunden.</numerusform>
            <numerusform>%n Motive gefunden.</numerusform>
        </translation>
    </message>
    <message>
        <source>looking for meteors</source>
        <translation>Meteore werden gesucht</translation>
    </message>
    <message>
        <source>No meteors were found.</source>
        <translation>Keine Meteore gefunden.</translation>
    </message>
    <message>
        <source>Find meteors</source>
        <translation>Meteore suchen</translation>
    </message>
    <message numerus="yes">
        <source>%n meteor(s) laid over the picture.</source>
        <translation>
            <numerusform>%n Meteor über das Bild gelegt.</numerusform>
            <numerusform>%n Meteore über das Bild gelegt.</numerusform>
        </translation>
    </message>
    <message>
        <source>looking what belongs to the place</source>
        <translation>gesucht wird, was zur Stelle gehört</translation>
    </message>
    <message>
        <source>There frame %1 shows what the picture shows.</source>
        <translation>Dort zeigt Aufnahme %1, was das Bild zeigt.</translation>
    </message>
    <message>
        <source>Take from frame %1</source>
        <translation>Aus Aufnahme %1 nehmen</translation>
    </message>
    <message>
        <source>Give back to what lies below</source>
        <translation>Zurückgeben an das, was darunter liegt</translation>
    </message>
    <message>
        <source>looking what is alike</source>
        <translation>Ähnliches wird gesucht</translation>
    </message>
    <message>
        <source>checking the picture</source>
        <translation>das Bild wird geprüft</translation>
    </message>
    <message numerus="yes">
        <source>measuring %n spot(s)</source>
        <translation>
            <numerusform>%n Fleck wird gemessen</numerusform>
            <numerusform>%n Flecken werden gemessen</numerusform>
        </translation>
    </message>
    <message numerus="yes">
        <source>Mend %n sensor spot(s)</source>
        <translation>
            <numerusform>%n Sensorfleck ausbessern</numerusform>
            <numerusform>%n Sensorflecken ausbessern</numerusform>
        </translation>
    </message>
    <message>
        <source>looking for sensor spots</source>
        <translation>Sensorflecken werden gesucht</translation>
    </message>
    <message>
        <source>No sensor spots were found.</source>
        <translation>Keine Sensorflecken gefunden.</translation>
    </message>
    <message numerus="yes">
        <source>%n suspected sensor spot(s). Tick those that are dust, or click on them.</source>
        <translation>
            <numerusform>%n vermuteter Sensorfleck. Ein Haken an die, die Staub sind, oder ein Klick darauf.</numerusform>
            <numerusform>%n vermutete Sensorflecken. Ein Haken an die, die Staub sind, oder ein Klick darauf.</numerusform>
        </translation>
    </message>
    <message>
        <source>refining</source>
        <translation>es wird verfeinert</translation>
    </message>
    <message>
        <source>The frame or the reference is another one now: refine again.</source>
        <translation>Die Aufnahme oder die Referenz ist jetzt eine andere: verfeinere noch einmal.</translation>
    </message>
    <message>
        <source>Refine frame %1</source>
        <translation>Aufnahme %1 verfeinern</translation>
    </message>
    <message>
        <source>Level: off</source>
        <translation>Angleichen: aus</translation>
    </message>
    <message>
        <source>levelling</source>
        <translation>es wird angeglichen</translation>
    </message>
    <message>
        <source>Level light</source>
        <translation>Licht angleichen</translation>
    </message>
    <message>
        <source>Level light and colour</source>
        <translation>Licht und Farbe angleichen</translation>
    </message>
    <message numerus="yes">
        <source>%n frame(s) could not be levelled: too dark, or clipped.</source>
        <translation>
            <numerusform>%n Aufnahme ließ sich nicht angleichen: zu dunkel oder beschnitten.</numerusform>
            <numerusform>%n Aufnahmen ließen sich nicht angleichen: zu dunkel oder beschnitten.</numerusform>
        </translation>
    </message>
    <message>
        <source>The frames are still being aligned. Wait until they are, or stop it.</source>
        <translation>Die Aufnahmen werden noch ausgerichtet. Darauf warten, oder es anhalten.</translation>
    </message>
    <message>
        <source>With another reference the picture lies %1 px elsewhere. What is painted, cropped and mended stays where it was: look at it, or undo.</source>
        <translation>Mit einer anderen Referenz liegt das Bild um %1 px anders. Gemaltes, Beschnitt und Ausbesserungen bleiben, wo sie waren: sieh sie an, oder nimm es zurück.</translation>
    </message>
</context>
<context>
    <name>bp::app::T</name>
    <message>
        <source>Wrote %1</source>
        <translation>%1 geschrieben</translation>
    </message>
    <message>
        <source>writing %1</source>
        <translation>%1 wird geschrieben</translation>
    </message>
    <message>
        <source>%1 is written after what is being written now.</source>
        <translation>%1 wird nach dem geschrieben, was jetzt geschrieben wird.</translation>
    </message>
</context>
<context>
    <name>bp::app::TaperCurve</name>
    <message>
        <source>Shape of the taper</source>
        <translation>Form des Ausklangs</translation>
    </message>
    <message>
        <source>Arrow keys move the knot, Home makes the line straight</source>
        <translation>Pfeiltasten bewegen den Knoten, Pos1 macht die Linie gerade</translation>
    </message>
    <message>
        <source>How the strength of frames rises from the trail&apos;s end. Pull the knot; a double-click makes the line straight</source>
        <translation>Wie die Stärke der Aufnahmen vom Ende der Spur steigt. Zieh den Knoten; ein Doppelklick macht die Linie gerade</translation>
    </message>
</context>
<context>
    <name>bp::app::TimeRail</name>
    <message>
        <source>Time rail: the frames in order</source>
        <translation>Zeitleiste: die Aufnahmen der Reihe nach</translation>
    </message>
    <message>
        <source>Traces</source>
        <translation>Verläufe</translation>
    </message>
    <message>
        <source>Chooses what is drawn over the frames</source>
        <translation>Wählt, was über die Aufnahmen gezeichnet wird</translation>
    </message>
    <message>
        <source>Traces over the time rail</source>
        <translation>Verläufe über der Zeitleiste</translation>
    </message>
    <message>
        <source>Order of frames</source>
        <translation>Reihenfolge der Aufnahmen</translation>
    </message>
    <message>
        <source>Frame %1: %2</source>
        <translation>Aufnahme %1: %2</translation>
    </message>
    <message>
        <source>%1 (a guess)</source>
        <translation>%1 (vermutet)</translation>
    </message>
    <message>
        <source>Set aside</source>
        <translation>Beiseite</translation>
    </message>
    <message>
        <source>Odd: %1</source>
        <translation>Auffällig: %1</translation>
    </message>
    <message>
        <source>Could not be aligned: not merged</source>
        <translation>Ließ sich nicht ausrichten: nicht vereint</translation>
    </message>
    <message>
        <source>Pull the corner to fade trails over more or less of the run, the knot to bend the rise</source>
        <translation>Zieh die Ecke, um Spuren über mehr oder weniger des Laufs verblassen zu lassen, den Knoten, um den Anstieg zu biegen</translation>
    </message>
    <message>
        <source>Drag to move the frame, or all that are selected, to another place of the run</source>
        <translation>Ziehen bringt die Aufnahme, oder alle gewählten, an eine andere Stelle des Laufs</translation>
    </message>
    <message>
        <source>Frame %1 of %2</source>
        <translation>Aufnahme %1 von %2</translation>
    </message>
    <message>
        <source>ISO %1</source>
        <translation>ISO %1</translation>
    </message>
    <message>
        <source>%1, a guess</source>
        <translation>%1, vermutet</translation>
    </message>
    <message>
        <source>set aside</source>
        <translation>beiseite</translation>
    </message>
    <message>
        <source>%1 selected</source>
        <translation>%1 gewählt</translation>
    </message>
    <message>
        <source>%1 of %2 read</source>
        <translation>%1 von %2 gelesen</translation>
    </message>
    <message>
        <source>Strength</source>
        <translation>Stärke</translation>
    </message>
</context>
<context>
    <name>bp::app::TonePanel</name>
    <message>
        <source>Point at grey</source>
        <translation>Auf Grau zeigen</translation>
    </message>
    <message>
        <source>Then click on a place of the picture that was grey: warmth and green to magenta make it so</source>
        <translation>Dann Klick auf eine Stelle, die grau war: Wärme und Grün zu Magenta machen sie so</translation>
    </message>
    <message>
        <source>Tone</source>
        <translation>Ton</translation>
    </message>
    <message>
        <source>Cast of light</source>
        <translation>Farbstich</translation>
    </message>
    <message>
        <source>Hues</source>
        <translation>Farbtöne</translation>
    </message>
</context>
<context>
    <name>bp::app::ToneRibbon</name>
    <message>
        <source>Tone ribbon</source>
        <translation>Tonband</translation>
    </message>
    <message>
        <source>Its knots can be set by the numbers below it</source>
        <translation>Seine Knoten lassen sich mit den Zahlen darunter einstellen</translation>
    </message>
    <message>
        <source>The picture&apos;s tones from dark to bright. Slide Floor and Peak along it, pull Deep, Middle and Bright up or down; a double-click takes a knot back</source>
        <translation>Die Töne des Bildes von dunkel bis hell. Schieb Boden und Gipfel entlang, zieh Tief, Mitte und Hell auf oder ab; ein Doppelklick nimmt einen Knoten zurück</translation>
    </message>
</context>
<context>
    <name>bp::app::ToneRibbons</name>
    <message>
        <source>Grey</source>
        <translation>Grau</translation>
    </message>
    <message>
        <source>All</source>
        <translation>Alle</translation>
    </message>
    <message>
        <source>Red</source>
        <translation>Rot</translation>
    </message>
    <message>
        <source>Green</source>
        <translation>Grün</translation>
    </message>
    <message>
        <source>Blue</source>
        <translation>Blau</translation>
    </message>
    <message>
        <source>Tones from dark to bright</source>
        <translation>Töne von dunkel bis hell</translation>
    </message>
</context>
<context>
    <name>bp::app::TonesPanel</name>
    <message>
        <source>Tones</source>
        <translation>Töne</translation>
    </message>
    <message>
        <source>Choose an area</source>
        <translation>Gebiet wählen</translation>
    </message>
    <message>
        <source>Drag over the picture: the tones of that area alone. Once more: of all that is seen</source>
        <translation>Zieh über das Bild: nur die Töne dieses Gebiets. Noch einmal: alles, was zu sehen ist</translation>
    </message>
    <message>
        <source>Of the area that is chosen, %1 x %2 px</source>
        <translation>Vom gewählten Gebiet, %1 x %2 px</translation>
    </message>
    <message>
        <source>Of what is seen</source>
        <translation>Von dem, was zu sehen ist</translation>
    </message>
    <message>
        <source>%1%</source>
        <translation>%1&#xa0;%</translation>
    </message>
    <message>
        <source>Black: %1
White: %2</source>
        <translation>Schwarz: %1
Weiß: %2</translation>
    </message>
</context>
<context>
    <name>bp::app::TopBar</name>
    <message>
        <source>Back to the start</source>
        <translation>Zurück zum Anfang</translation>
    </message>
    <message>
        <source>edited</source>
        <translation>geändert</translation>
    </message>
    <message>
        <source>What the pile is to become. Sets first values; nothing is lost.</source>
        <translation>Was der Stapel werden soll. Setzt erste Werte; nichts geht verloren.</translation>
    </message>
    <message>
        <source>%1: %2</source>
        <translation>%1: %2</translation>
    </message>
    <message>
        <source>Undo</source>
        <translation>Rückgängig</translation>
    </message>
    <message>
        <source>Redo</source>
        <translation>Wiederholen</translation>
    </message>
    <message>
        <source>Export</source>
        <translation>Ausgabe</translation>
    </message>
    <message>
        <source>not saved</source>
        <translation>nicht gesichert</translation>
    </message>
    <message>
        <source>%1?</source>
        <translation>%1?</translation>
    </message>
    <message>
        <source>Undo: %1 (%2)</source>
        <translation>Rückgängig: %1 (%2)</translation>
    </message>
    <message>
        <source>Nothing to undo</source>
        <translation>Nichts rückgängig zu machen</translation>
    </message>
    <message>
        <source>Redo: %1 (%2)</source>
        <translation>Wiederholen: %1 (%2)</translation>
    </message>
    <message>
        <source>Nothing to redo</source>
        <translation>Nichts zu wiederholen</translation>
    </message>
    <message>
        <source>Outcome: %1</source>
        <translation>Ziel: %1</translation>
    </message>
</context>
<context>
    <name>bp::app::ValueSliders</name>
    <message>
        <source> px</source>
        <translation> px</translation>
    </message>
    <message>
        <source>Sharpening</source>
        <translation>Schärfen</translation>
    </message>
    <message>
        <source>Makes fine edges steeper. Judge it at 1:1</source>
        <translation>Macht feine Kanten steiler. Bei 1:1 zu beurteilen</translation>
    </message>
    <message>
        <source>Reach of sharpening</source>
        <translation>Weite des Schärfens</translation>
    </message>
    <message>
        <source>How wide the edges are that become steeper</source>
        <translation>Wie breit die Kanten sind, die steiler werden</translation>
    </message>
    <message>
        <source>Limit of rims</source>
        <translation>Grenze der Säume</translation>
    </message>
    <message>
        <source>How much brighter or darker than its neighbours a pixel may become</source>
        <translation>Wie viel heller oder dunkler als seine Nachbarn ein Pixel werden darf</translation>
    </message>
    <message>
        <source>Calm of flat places</source>
        <translation>Ruhe glatter Stellen</translation>
    </message>
    <message>
        <source>Differences below this, noise and smooth skies, are hardly sharpened</source>
        <translation>Unterschiede darunter, Rauschen und glatter Himmel, werden kaum geschärft</translation>
    </message>
    <message>
        <source>Local contrast</source>
        <translation>Örtlicher Kontrast</translation>
    </message>
    <message>
        <source>Draws places apart from what lies around them, or together</source>
        <translation>Zieht Stellen von ihrer Umgebung weg oder zu ihr hin</translation>
    </message>
    <message>
        <source>Its reach</source>
        <translation>Seine Weite</translation>
    </message>
    <message>
        <source>Wide contrast</source>
        <translation>Weiter Kontrast</translation>
    </message>
    <message>
        <source>The same against what lies around within a twentieth of the picture</source>
        <translation>Dasselbe gegen das, was innerhalb eines Zwanzigstels des Bildes liegt</translation>
    </message>
    <message>
        <source>Less noise</source>
        <translation>Weniger Rauschen</translation>
    </message>
    <message>
        <source>Takes away what is no larger than the noise that the merge leaves. Edges stay</source>
        <translation>Nimmt weg, was nicht größer ist als das Rauschen, das das Vereinen lässt. Kanten bleiben</translation>
    </message>
    <message>
        <source>Less noise of colour</source>
        <translation>Weniger Farbrauschen</translation>
    </message>
    <message>
        <source>The same for spots of colour; brightness stays as it is</source>
        <translation>Dasselbe für Farbflecken; die Helligkeit bleibt, wie sie ist</translation>
    </message>
    <message>
        <source>Stars</source>
        <translation>Sterne</translation>
    </message>
    <message>
        <source>Smaller to the left, larger to the right; their middles stay as bright. In the sky, where there are zones</source>
        <translation>Nach links kleiner, nach rechts größer; ihre Mitten bleiben gleich hell. Im Himmel, wo es Bereiche gibt</translation>
    </message>
    <message>
        <source>How far the surroundings go</source>
        <translation>Wie weit die Umgebung reicht</translation>
    </message>
</context>
<context>
    <name>bp::app::ViewBar</name>
    <message>
        <source>Difference against</source>
        <translation>Differenz gegen</translation>
    </message>
    <message>
        <source>What the frame is held against</source>
        <translation>Wogegen die Aufnahme gehalten wird</translation>
    </message>
    <message>
        <source>Against the reference</source>
        <translation>Gegen die Referenz</translation>
    </message>
    <message>
        <source>Against the frame before</source>
        <translation>Gegen die davor</translation>
    </message>
    <message>
        <source>Gain of the difference</source>
        <translation>Verstärkung der Differenz</translation>
    </message>
    <message>
        <source>How much the difference is strengthened</source>
        <translation>Wie stark die Differenz verstärkt wird</translation>
    </message>
    <message>
        <source>%1 times</source>
        <translation>%1-fach</translation>
    </message>
    <message>
        <source>On the right</source>
        <translation>Rechts</translation>
    </message>
    <message>
        <source>What stands on the right of the divider</source>
        <translation>Was rechts vom Teiler steht</translation>
    </message>
    <message>
        <source>Result</source>
        <translation>Ergebnis</translation>
    </message>
    <message>
        <source>Reference</source>
        <translation>Referenz</translation>
    </message>
    <message>
        <source>Frame before</source>
        <translation>Aufnahme davor</translation>
    </message>
    <message>
        <source>Held frame</source>
        <translation>Gehaltene Aufnahme</translation>
    </message>
    <message>
        <source>Held settings</source>
        <translation>Gemerkte Einstellungen</translation>
    </message>
    <message>
        <source>Before finishing</source>
        <translation>Vor dem Vollenden</translation>
    </message>
    <message>
        <source>Hold this frame</source>
        <translation>Diese Aufnahme halten</translation>
    </message>
    <message>
        <source>Swap</source>
        <translation>Tauschen</translation>
    </message>
    <message>
        <source>The picture takes the held settings of the merge, and its own are held on the right</source>
        <translation>Das Bild nimmt die gemerkten Einstellungen des Vereinens, seine eigenen stehen rechts</translation>
    </message>
    <message>
        <source>Hold these settings</source>
        <translation>Diese Einstellungen merken</translation>
    </message>
    <message>
        <source>Keeps the settings of the merge on the right, to hold others against them</source>
        <translation>Behält die Einstellungen des Vereinens rechts, um andere dagegenzuhalten</translation>
    </message>
</context>
<context>
    <name>bp::app::Viewer</name>
    <message>
        <source>bringing frames nearer</source>
        <translation>Aufnahmen werden bereitgelegt</translation>
    </message>
</context>
<context>
    <name>bp::app::ZoneSwitch</name>
    <message>
        <source>Sky</source>
        <translation>Himmel</translation>
    </message>
    <message>
        <source>What is set below goes for the sky</source>
        <translation>Was unten eingestellt wird, gilt für den Himmel</translation>
    </message>
    <message>
        <source>Land</source>
        <translation>Land</translation>
    </message>
    <message>
        <source>What is set below goes for the land</source>
        <translation>Was unten eingestellt wird, gilt für das Land</translation>
    </message>
</context>
<context>
    <name>cli</name>
    <message>
        <source>--grid takes columns x rows, e.g. 9x7, each from 2 to 1000.</source>
        <translation>--grid nimmt Spalten x Zeilen, z. B. 9x7, je von 2 bis 1000.</translation>
    </message>
    <message>
        <source>How frames may have moved</source>
        <translation>Wie sich die Aufnahmen bewegt haben können</translation>
    </message>
    <message>
        <source>Also print where CxR points of the frame fall in the reference</source>
        <translation>Gibt auch aus, wohin CxR Punkte der Aufnahme in der Referenz fallen</translation>
    </message>
    <message>
        <source>Also write the pile, aligned</source>
        <translation>Schreibt auch den Stapel, ausgerichtet</translation>
    </message>
    <message>
        <source>Print JSON</source>
        <translation>Gibt JSON aus</translation>
    </message>
    <message>
        <source>Files, folders or globs</source>
        <translation>Dateien, Ordner oder Muster von Namen</translation>
    </message>
    <message>
        <source>captured (time, then name), name, or given</source>
        <translation>captured (Zeit, dann Name), name oder given (wie angegeben)</translation>
    </message>
    <message>
        <source>Number in the run, from 1, or file; default the first frame</source>
        <translation>Nummer in der Reihe, ab 1, oder Datei; sonst die erste Aufnahme</translation>
    </message>
    <message>
        <source>--reference %1 is none of the frames: give a number from 1 to %2 or one of the files.</source>
        <translation>--reference %1 ist keine der Aufnahmen: eine Nummer von 1 bis %2 oder eine der Dateien angeben.</translation>
    </message>
    <message>
        <source>The reference frame cannot be used: %1</source>
        <translation>Die Referenzaufnahme ist nicht zu gebrauchen: %1</translation>
    </message>
    <message>
        <source>The name %1 must end in .pile.</source>
        <translation>Der Name %1 muss auf .pile enden.</translation>
    </message>
    <message>
        <source>Set aside: %1</source>
        <translation>Beiseite gelegt: %1</translation>
    </message>
    <message>
        <source>Set aside: %1 could not be aligned to the reference.</source>
        <translation>Beiseite gelegt: %1 ließ sich nicht auf die Referenz ausrichten.</translation>
    </message>
    <message>
        <source>The picture to write: .tif, .png, .exr, .jxl, .webp, .jpg or .ora</source>
        <translation>Das Bild, das geschrieben wird: .tif, .png, .exr, .jxl, .webp, .jpg oder .ora</translation>
    </message>
    <message>
        <source>Also write the pile; render of it gives the picture</source>
        <translation>Schreibt auch den Stapel; render macht daraus das Bild</translation>
    </message>
    <message>
        <source>Print one JSON object: %1</source>
        <translation>Gibt ein JSON-Objekt aus: %1</translation>
    </message>
    <message>
        <source>--%1 is for frames: a pile says itself how it is merged.</source>
        <translation>--%1 gilt für Aufnahmen: Ein Stapel sagt selbst, wie er vereint wird.</translation>
    </message>
    <message>
        <source>The clip to write, .mp4 or .webm, or a new or empty folder for numbered .png pictures</source>
        <translation>Der Film, der geschrieben wird, .mp4 oder .webm, oder ein neuer oder leerer Ordner für nummerierte .png-Bilder</translation>
    </message>
    <message>
        <source>Pictures a second; default 24</source>
        <translation>Bilder je Sekunde; sonst 24</translation>
    </message>
    <message>
        <source>Until the picture is whole; default one frame a picture</source>
        <translation>Bis das Bild ganz ist; sonst eine Aufnahme je Bild</translation>
    </message>
    <message>
        <source>Seconds that the whole picture stays; default 2</source>
        <translation>Sekunden, die das ganze Bild stehen bleibt; sonst 2</translation>
    </message>
    <message>
        <source>Lines of pixels that the pictures are high at most; default 1080</source>
        <translation>Zeilen von Pixeln, die die Bilder höchstens hoch sind; sonst 1080</translation>
    </message>
    <message>
        <source>about %1 s left</source>
        <translation>noch etwa %1 s</translation>
    </message>
    <message>
        <source>Aligns and merges a run of frames of one scene. The originals are never written to.</source>
        <translation>Richtet eine Reihe von Aufnahmen einer Szene aus und vereint sie. In die Originale wird nie geschrieben.</translation>
    </message>
    <message>
        <source>No progress</source>
        <translation>Ohne Fortschritt</translation>
    </message>
    <message>
        <source>bar, or json for one JSON line a step</source>
        <translation>bar (Balken), oder json für eine JSON-Zeile je Schritt</translation>
    </message>
    <message>
        <source>Merge frames into one picture</source>
        <translation>Aufnahmen zu einem Bild vereinen</translation>
    </message>
    <message>
        <source>Print what is known of each frame</source>
        <translation>Ausgeben, was über jede Aufnahme bekannt ist</translation>
    </message>
    <message>
        <source>Print where each frame lies against the reference</source>
        <translation>Ausgeben, wie jede Aufnahme zur Referenz liegt</translation>
    </message>
    <message>
        <source>Find aircraft, satellites and meteors</source>
        <translation>Flugzeuge, Satelliten und Meteore finden</translation>
    </message>
    <message>
        <source>Show what moves in many places of one picture</source>
        <translation>Was sich bewegt, an vielen Stellen eines Bildes zeigen</translation>
    </message>
    <message>
        <source>Lay the meteors of all frames over one</source>
        <translation>Die Meteore aller Aufnahmen über eine legen</translation>
    </message>
    <message>
        <source>Write the picture as it comes into being, as a clip or numbered pictures</source>
        <translation>Schreiben, wie das Bild entsteht, als Film oder nummerierte Bilder</translation>
    </message>
    <message>
        <source>Write the picture of a saved pile</source>
        <translation>Das Bild eines gesicherten Stapels schreiben</translation>
    </message>
    <message>
        <source>Photograph a scene of Skerrow harbour, with its truth</source>
        <translation>Eine Szene des Hafens von Skerrow aufnehmen, mit ihrer Wahrheit</translation>
    </message>
    <message>
        <source>Say where to write: -o for the picture, --pile for the pile, or both.</source>
        <translation>Es fehlt, wohin geschrieben wird: -o für das Bild, --pile für den Stapel, oder beides.</translation>
    </message>
    <message>
        <source>--report tells of the picture that -o names, and none is written.</source>
        <translation>--report berichtet über das Bild, das -o nennt, und keines wird geschrieben.</translation>
    </message>
    <message>
        <source>Also (or, without -o, only) write the pile; render of it gives the picture</source>
        <translation>Schreibt auch (ohne -o nur) den Stapel; render macht daraus das Bild</translation>
    </message>
    <message>
        <source>Write what was done as JSON</source>
        <translation>Schreibt als JSON, was getan wurde</translation>
    </message>
    <message>
        <source>%1 is not of the size of the frames. A mask must be.</source>
        <translation>%1 ist nicht so groß wie die Aufnahmen. Eine Maske muss es sein.</translation>
    </message>
    <message>
        <source>%1 needs --sky with a mask that is white where the sky is.</source>
        <translation>%1 braucht --sky mit einer Maske, die weiß ist, wo der Himmel ist.</translation>
    </message>
    <message>
        <source>--taper is for modes in which the strength of frames counts: lighten, add, mean and clipped-mean.</source>
        <translation>--taper gilt für Modi, in denen die Stärke der Aufnahmen zählt: lighten, add, mean und clipped-mean.</translation>
    </message>
    <message>
        <source>--taper-end says at which end --taper fades, and no --taper is given.</source>
        <translation>--taper-end sagt, an welchem Ende --taper verblasst, und --taper ist nicht angegeben.</translation>
    </message>
    <message>
        <source>--head is for modes in which the strength of frames counts: lighten, add, mean and clipped-mean.</source>
        <translation>--head gilt für Modi, in denen die Stärke der Aufnahmen zählt: lighten, add, mean und clipped-mean.</translation>
    </message>
    <message>
        <source>--head-apart, --head-radius and --head-light tell more of --head, and no --head is given.</source>
        <translation>--head-apart, --head-radius und --head-light sagen mehr über --head, und --head ist nicht angegeben.</translation>
    </message>
    <message>
        <source>--white is for --mode add, in which light can be more than white.</source>
        <translation>--white gilt für --mode add, wo Licht mehr als Weiß sein kann.</translation>
    </message>
    <message>
        <source>--knit closes the breaks in trails of frames that are not aligned, in the modes lighten and maximum of the sky.</source>
        <translation>--knit schließt die Lücken in Spuren von Aufnahmen, die nicht ausgerichtet sind, in den Modi lighten und maximum des Himmels.</translation>
    </message>
    <message>
        <source>--knit-longest says which pauses --knit auto closes, and --knit auto is not given.</source>
        <translation>--knit-longest sagt, welche Pausen --knit auto schließt, und --knit auto ist nicht angegeben.</translation>
    </message>
    <message>
        <source>--by pixel says how lighten, maximum and minimum choose among frames.</source>
        <translation>--by pixel sagt, wie lighten, maximum und minimum unter den Aufnahmen wählen.</translation>
    </message>
    <message>
        <source>--leave-out %1 does not say what to leave out: give the number of a frame from 1 to %2, a colon, and a mask that is white there.</source>
        <translation>--leave-out %1 sagt nicht, was wegbleibt: die Nummer einer Aufnahme von 1 bis %2 angeben, einen Doppelpunkt und eine Maske, die dort weiß ist.</translation>
    </message>
    <message>
        <source>--scale-darks says how --dark is subtracted, and no dark is given.</source>
        <translation>--scale-darks sagt, wie --dark abgezogen wird, und kein Dunkelbild ist angegeben.</translation>
    </message>
    <message>
        <source>--trust says where --align may look, and nothing is aligned.</source>
        <translation>--trust sagt, wohin --align schauen darf, und nichts wird ausgerichtet.</translation>
    </message>
    <message>
        <source>No streaks were looked for: how the stars moved could not be found. That needs four frames or more with their times, and stars in the reference.</source>
        <translation>Streifen wurden nicht gesucht: Wie sich die Sterne bewegten, ließ sich nicht finden. Das braucht vier Aufnahmen oder mehr mit ihren Zeiten und Sterne in der Referenz.</translation>
    </message>
    <message>
        <source>Nothing was knitted: how the stars moved could not be found. That needs four frames or more with their times, and stars in the reference. Nor does any other light go on through three frames.</source>
        <translation>Keine Lücken wurden geschlossen: Wie sich die Sterne bewegten, ließ sich nicht finden. Das braucht vier Aufnahmen oder mehr mit ihren Zeiten und Sterne in der Referenz. Auch kein anderes Licht geht durch drei Aufnahmen weiter.</translation>
    </message>
    <message>
        <source>A pile whose settings these frames get, before all others that are given here</source>
        <translation>Ein Stapel, dessen Einstellungen diese Aufnahmen bekommen, vor allen anderen, die hier angegeben sind</translation>
    </message>
    <message>
        <source>How frames become one picture</source>
        <translation>Wie aus Aufnahmen ein Bild wird</translation>
    </message>
    <message>
        <source>Choose each channel for itself, or whole pixels by brightness</source>
        <translation>Jeder Kanal wird für sich gewählt, oder ganze Pixel nach Helligkeit</translation>
    </message>
    <message>
        <source>Trails fade: the strength of frames rises over so many per cent of the run</source>
        <translation>Spuren verblassen: Die Stärke der Aufnahmen steigt über so viel Prozent der Reihe</translation>
    </message>
    <message>
        <source>Where they fade; default old</source>
        <translation>Wo sie verblassen; sonst old</translation>
    </message>
    <message>
        <source>So many frames at the end that does not fade stand out</source>
        <translation>So viele Aufnahmen an dem Ende, das nicht verblasst, heben sich ab</translation>
    </message>
    <message>
        <source>So many frames between head and tail are left out</source>
        <translation>So viele Aufnahmen zwischen Kopf und Schweif bleiben weg</translation>
    </message>
    <message>
        <source>Lights of the head are grown and softened, in pixels</source>
        <translation>Lichter des Kopfes werden größer und weicher, in Pixeln</translation>
    </message>
    <message>
        <source>kept: lights that grow stay bright; spread: they grow dimmer. Default kept</source>
        <translation>kept: Lichter bleiben hell, wenn sie wachsen; spread: sie werden matter. Sonst kept</translation>
    </message>
    <message>
        <source>Added light beyond white is white, or pressed below it; default hard</source>
        <translation>Addiertes Licht über Weiß ist weiß oder wird darunter gedrückt; sonst hard</translation>
    </message>
    <message>
        <source>auto closes the breaks that pauses leave in trails</source>
        <translation>auto schließt die Lücken, die Pausen in Spuren lassen</translation>
    </message>
    <message>
        <source>The longest pause that is closed, in seconds; default 120</source>
        <translation>Die längste Pause, die geschlossen wird, in Sekunden; sonst 120</translation>
    </message>
    <message>
        <source>Leaves what is found out of the frames that have it</source>
        <translation>Lässt, was gefunden wird, aus den Aufnahmen weg, die es haben</translation>
    </message>
    <message>
        <source>N:MASK, repeatable: what is white in a mask takes no part in frame N, counted from 1</source>
        <translation>N:MASKE, mehrmals möglich: Was in einer Maske weiß ist, zählt in Aufnahme N nicht mit, gezählt ab 1</translation>
    </message>
    <message>
        <source>linear or encoded values, for means, added light and strengths</source>
        <translation>Lineare oder kodierte Werte, für Mittel, addiertes Licht und Stärken</translation>
    </message>
    <message>
        <source>auto finds pixels that glow in all frames, and mends them</source>
        <translation>auto findet Pixel, die in allen Aufnahmen leuchten, und heilt sie</translation>
    </message>
    <message>
        <source>A frame taken with the lens covered, subtracted from the others; repeatable</source>
        <translation>Eine Aufnahme mit bedecktem Objektiv, von den anderen abgezogen; mehrmals möglich</translation>
    </message>
    <message>
        <source>Subtract darks of another exposure, too, in proportion</source>
        <translation>Zieht auch Dunkelbilder anderer Belichtung ab, im Verhältnis</translation>
    </message>
    <message>
        <source>A picture that is white where aligning may look</source>
        <translation>Ein Bild, das weiß ist, wohin das Ausrichten schauen darf</translation>
    </message>
    <message>
        <source>A picture that is white where the sky is: it and the land are merged apart</source>
        <translation>Ein Bild, das weiß ist, wo der Himmel ist: Er und das Land werden getrennt vereint</translation>
    </message>
    <message>
        <source>How the sky may have moved</source>
        <translation>Wie sich der Himmel bewegt haben kann</translation>
    </message>
    <message>
        <source>How the sky becomes one picture</source>
        <translation>Wie aus dem Himmel ein Bild wird</translation>
    </message>
    <message>
        <source>How the land may have moved</source>
        <translation>Wie sich das Land bewegt haben kann</translation>
    </message>
    <message>
        <source>How the land becomes one picture</source>
        <translation>Wie aus dem Land ein Bild wird</translation>
    </message>
    <message>
        <source>Level the light, or light and colour, of all frames to the reference</source>
        <translation>Gleicht das Licht, oder Licht und Farbe, aller Aufnahmen der Referenz an</translation>
    </message>
    <message>
        <source>A finish file, or a pile whose finish is taken: tone, colour, detail and places of the picture</source>
        <translation>Eine Datei mit einer Vollendung, oder ein Stapel, dessen Vollendung genommen wird: Ton, Farbe, Zeichnung und Stellen des Bildes</translation>
    </message>
    <message>
        <source>full crops to the area that all frames reach; any does not</source>
        <translation>full schneidet auf das Gebiet zu, das alle Aufnahmen erreichen; any nicht</translation>
    </message>
    <message>
        <source>Bits a sample: 8, 16, or 32 in .exr, where 16 are half floats</source>
        <translation>Bits je Wert: 8, 16, oder 32 in .exr, wo 16 halbe Gleitkommazahlen sind</translation>
    </message>
    <message>
        <source>Of .jpg, .webp and .jxl; in the last two 100 loses nothing</source>
        <translation>Von .jpg, .webp und .jxl; in den letzten beiden verliert 100 nichts</translation>
    </message>
    <message>
        <source>srgb, p3, rec2020 or an ICC file; default the profile of the frames</source>
        <translation>srgb, p3, rec2020 oder eine ICC-Datei; sonst das Profil der Aufnahmen</translation>
    </message>
    <message>
        <source>Pixels of the longer side; the picture is never enlarged</source>
        <translation>Pixel der längeren Seite; das Bild wird nie vergrößert</translation>
    </message>
    <message>
        <source>Sharpens what was made smaller, in per cent; default 0</source>
        <translation>Schärft, was verkleinert wurde, in Prozent; sonst 0</translation>
    </message>
    <message>
        <source>Leave out of the capture data where the frames were taken, and the camera&apos;s serial number</source>
        <translation>Lässt aus den Aufnahmedaten weg, wo aufgenommen wurde, und die Seriennummer der Kamera</translation>
    </message>
    <message>
        <source>Memory that may be used, e.g. 1G; default a quarter of the machine&apos;s</source>
        <translation>Speicher, der genutzt werden darf, z. B. 1G; sonst ein Viertel dessen, den der Rechner hat</translation>
    </message>
    <message>
        <source>Threads to use; default all cores</source>
        <translation>So viele Threads; sonst alle Kerne</translation>
    </message>
    <message>
        <source>--size takes width x height, e.g. 1600x1067, each from 64 to 20000.</source>
        <translation>--size nimmt Breite x Höhe, z. B. 1600x1067, je von 64 bis 20000.</translation>
    </message>
    <message>
        <source>The scene to photograph</source>
        <translation>Die Szene, die aufgenommen wird</translation>
    </message>
    <message>
        <source>The folder for the frames and truth/</source>
        <translation>Der Ordner für die Aufnahmen und truth/</translation>
    </message>
    <message>
        <source>How many; default as the scene has</source>
        <translation>Wie viele; sonst so viele, wie die Szene hat</translation>
    </message>
    <message>
        <source>Width x height in pixels</source>
        <translation>Breite x Höhe in Pixeln</translation>
    </message>
    <message>
        <source>jpeg, png, tiff (16 bit) or dng (raw)</source>
        <translation>jpeg, png, tiff (16 Bit) oder dng (Rohdaten)</translation>
    </message>
    <message>
        <source>The same seed gives the same bytes</source>
        <translation>Gleicher Startwert, gleiche Bytes</translation>
    </message>
    <message>
        <source>Write the frames one by one, so many seconds from one to the next</source>
        <translation>Schreibt die Aufnahmen eine nach der anderen, so viele Sekunden von einer zur nächsten</translation>
    </message>
    <message>
        <source>A saved pile</source>
        <translation>Ein gesicherter Stapel</translation>
    </message>
    <message>
        <source>Nothing was found that moves through the frames. The picture is the cleared scene.</source>
        <translation>Nichts wurde gefunden, das sich durch die Aufnahmen bewegt. Das Bild ist die freie Szene.</translation>
    </message>
    <message>
        <source>frames used, boxes, overlaps</source>
        <translation>genutzte Aufnahmen, Kästen, Überlappungen</translation>
    </message>
    <message>
        <source>How far apart the places of a subject lie, in per cent of its length; default 10</source>
        <translation>Wie weit die Stellen eines Motivs auseinander liegen, in Prozent seiner Länge; sonst 10</translation>
    </message>
    <message>
        <source>Which places lie over others; default late</source>
        <translation>Welche Stellen über anderen liegen; sonst late</translation>
    </message>
    <message>
        <source>No meteors were found. The picture is the one frame.</source>
        <translation>Keine Meteore wurden gefunden. Das Bild ist die eine Aufnahme.</translation>
    </message>
    <message>
        <source>the meteors that were laid over the frame</source>
        <translation>die Meteore, die über die Aufnahme gelegt wurden</translation>
    </message>
    <message>
        <source>Print one JSON object</source>
        <translation>Gibt ein JSON-Objekt aus</translation>
    </message>
    <message>
        <source>Print this help message and exit</source>
        <translation>Gibt diese Hilfe aus</translation>
    </message>
    <message>
        <source>Display program version information and exit</source>
        <translation>Gibt die Version des Programms aus</translation>
    </message>
    <message>
        <source>Usage</source>
        <translation>Aufruf</translation>
    </message>
    <message>
        <source>OPTIONS</source>
        <translation>OPTIONEN</translation>
    </message>
    <message>
        <source>SUBCOMMAND</source>
        <translation>BEFEHL</translation>
    </message>
    <message>
        <source>Options</source>
        <translation>Optionen</translation>
    </message>
    <message>
        <source>Subcommands</source>
        <translation>Befehle</translation>
    </message>
    <message>
        <source>Positionals</source>
        <translation>Angaben</translation>
    </message>
    <message>
        <source>REQUIRED</source>
        <translation>NÖTIG</translation>
    </message>
    <message>
        <source>TEXT</source>
        <translation>TEXT</translation>
    </message>
    <message>
        <source>INT</source>
        <translation>ZAHL</translation>
    </message>
    <message>
        <source>UINT</source>
        <translation>ZAHL</translation>
    </message>
    <message>
        <source>FLOAT</source>
        <translation>ZAHL</translation>
    </message>
    <message>
        <source>With --help all that can be said is listed.</source>
        <translation>Mit --help wird alles aufgezählt, was gesagt werden kann.</translation>
    </message>
    <message>
        <source>It is not said what is to be done: name one of the commands.</source>
        <translation>Es ist nicht gesagt, was zu tun ist: einen der Befehle nennen.</translation>
    </message>
    <message>
        <source>%1 is missing.</source>
        <translation>%1 fehlt.</translation>
    </message>
    <message>
        <source>%1 is not known here.</source>
        <translation>%1 ist hier nicht bekannt.</translation>
    </message>
    <message>
        <source>%1 are not known here.</source>
        <translation>%1 sind hier nicht bekannt.</translation>
    </message>
    <message>
        <source>Something is missing after %1.</source>
        <translation>Nach %1 fehlt etwas.</translation>
    </message>
    <message>
        <source>%1 is from %3 to %4, not %2.</source>
        <translation>%1 geht von %3 bis %4, nicht %2.</translation>
    </message>
    <message>
        <source>%1 is one of %3, not %2.</source>
        <translation>%1 ist eines von %3, nicht %2.</translation>
    </message>
    <message>
        <source>%1 is a number, not %2.</source>
        <translation>%1 ist eine Zahl, nicht %2.</translation>
    </message>
    <message>
        <source>%1 is for calls with %2.</source>
        <translation>%1 ist für Aufrufe mit %2.</translation>
    </message>
    <message>
        <source>%1 and %2 cannot go together.</source>
        <translation>%1 und %2 gehen nicht zusammen.</translation>
    </message>
    <message>
        <source>--report would write over %1, which is written, too. Choose another name.</source>
        <translation>--report würde %1 überschreiben, was auch geschrieben wird. Wähle einen anderen Namen.</translation>
    </message>
</context>
<context>
    <name>core</name>
    <message>
        <source>Cannot write %1: %2. Choose another place or free some space.</source>
        <translation>%1 lässt sich nicht schreiben: %2. Wähle einen anderen Ort oder schaffe Platz.</translation>
    </message>
    <message>
        <source>the folder does not exist</source>
        <translation>den Ordner gibt es nicht</translation>
    </message>
    <message>
        <source>a folder has this name</source>
        <translation>ein Ordner heißt so</translation>
    </message>
    <message>
        <source>%1 is protected from writing, and stays as it is. Choose another name.</source>
        <translation>%1 ist gegen Schreiben geschützt und bleibt, wie es ist. Wähle einen anderen Namen.</translation>
    </message>
    <message>
        <source>nothing came to be written</source>
        <translation>es kam nichts zum Schreiben</translation>
    </message>
    <message>
        <source>%1 cannot be opened: %2. Was it moved, or may it not be read?</source>
        <translation>%1 lässt sich nicht öffnen: %2. Wurde es verschoben, oder darf es nicht gelesen werden?</translation>
    </message>
    <message>
        <source>%1 cannot be read to its end. Copy it again.</source>
        <translation>%1 lässt sich nicht bis zum Ende lesen. Noch einmal kopieren.</translation>
    </message>
    <message>
        <source>There is not enough memory for this. Close other programs, allow less under Room, or set frames aside.</source>
        <translation>Dafür reicht der Speicher nicht. Schließe andere Programme, erlaube unter Platz weniger oder lege Aufnahmen beiseite.</translation>
    </message>
    <message>
        <source>This could not be done: %1.</source>
        <translation>Das ließ sich nicht machen: %1.</translation>
    </message>
    <message>
        <source>This could not be done, and nothing says why.</source>
        <translation>Das ließ sich nicht machen, und nichts sagt, warum.</translation>
    </message>
    <message>
        <source>1 frame</source>
        <translation>1 Aufnahme</translation>
    </message>
    <message>
        <source>%1 frames</source>
        <translation>%1 Aufnahmen</translation>
    </message>
    <message>
        <source>%1 are needed for working files in %2, and %3. Make room on that disk, or allow more.</source>
        <translation>%1 werden für Arbeitsdateien in %2 gebraucht, und %3. Schaffe Platz auf der Platte oder erlaube mehr.</translation>
    </message>
    <message>
        <source>only %1 are left there</source>
        <translation>nur %1 sind dort frei</translation>
    </message>
    <message>
        <source>they cannot be had (%1)</source>
        <translation>sie sind nicht zu haben (%1)</translation>
    </message>
    <message>
        <source>they cannot be written (%1)</source>
        <translation>sie lassen sich nicht schreiben (%1)</translation>
    </message>
    <message>
        <source>they cannot be mapped (%1)</source>
        <translation>sie lassen sich nicht einblenden (%1)</translation>
    </message>
    <message>
        <source>Finding stars in %1</source>
        <translation>Sterne werden gesucht: %1</translation>
    </message>
    <message>
        <source>Aligning by the stars needs capture times, and the reference frame has none.</source>
        <translation>Nach Sternen auszurichten braucht Aufnahmezeiten, und die Referenz hat keine.</translation>
    </message>
    <message>
        <source>Placing the frames under the sky</source>
        <translation>Die Aufnahmen werden unter den Himmel gelegt</translation>
    </message>
    <message>
        <source>The stars of the reference frame were not found again in other frames. Choose a clear frame as reference, or another model.</source>
        <translation>Die Sterne der Referenz wurden in anderen Aufnahmen nicht wiedergefunden. Wähle eine klare Aufnahme als Referenz oder ein anderes Modell.</translation>
    </message>
    <message>
        <source>The reference frame cannot be used. Choose another one.</source>
        <translation>Die Referenz ist nicht zu gebrauchen. Wähle eine andere.</translation>
    </message>
    <message>
        <source>The reference frame is not one of the scene. Choose a frame of the scene as reference.</source>
        <translation>Die Referenz ist keine Aufnahme der Szene. Wähle eine aus der Szene.</translation>
    </message>
    <message>
        <source>The frames are too small to be aligned.</source>
        <translation>Die Aufnahmen sind zu klein, um ausgerichtet zu werden.</translation>
    </message>
    <message>
        <source>Aligning %1</source>
        <translation>Ausgerichtet werden %1</translation>
    </message>
    <message>
        <source>This frame cannot be aligned to the reference. Place it by hand.</source>
        <translation>Diese Aufnahme lässt sich nicht auf die Referenz ausrichten. Mit der Hand legen.</translation>
    </message>
    <message>
        <source>From here the frame does not come to lie on the reference. It was left where it is.</source>
        <translation>Von hier aus kommt die Aufnahme nicht auf die Referenz. Sie blieb, wo sie war.</translation>
    </message>
    <message>
        <source>Finishing %1</source>
        <translation>Vollendet werden %1</translation>
    </message>
    <message>
        <source>Growing %1 pictures</source>
        <translation>%1 Bilder wachsen</translation>
    </message>
    <message>
        <source>%1 holds something already. Numbered pictures go into a new or an empty folder.</source>
        <translation>%1 enthält schon etwas. Nummerierte Bilder kommen in einen neuen oder leeren Ordner.</translation>
    </message>
    <message>
        <source>The name %1 ends in no format of clips: use .mp4 or .webm, or a folder&apos;s name without an ending for numbered pictures.</source>
        <translation>Der Name %1 endet auf kein Filmformat: nimm .mp4 oder .webm, oder einen Ordnernamen ohne Endung für nummerierte Bilder.</translation>
    </message>
    <message>
        <source>Hot pixels are found in four frames or more of one run.</source>
        <translation>Heiße Pixel werden in vier oder mehr Aufnahmen eines Laufs gefunden.</translation>
    </message>
    <message>
        <source>This frame is not in the pile any more.</source>
        <translation>Diese Aufnahme ist nicht mehr im Stapel.</translation>
    </message>
    <message>
        <source>Merging %1</source>
        <translation>Vereint werden %1</translation>
    </message>
    <message>
        <source>Levelling %1</source>
        <translation>Angeglichen werden %1</translation>
    </message>
    <message>
        <source>Looking for streaks in %1</source>
        <translation>Streifen werden gesucht: %1</translation>
    </message>
    <message>
        <source>%1 is %2 pixels, the rest are %3: the camera was turned. Turn it like the others.</source>
        <translation>%1 hat %2 Pixel, die übrigen %3: die Kamera war gedreht. Drehe sie wie die anderen.</translation>
    </message>
    <message>
        <source>%1 is %2 pixels, the rest are %3. Frames of one pile must have one size.</source>
        <translation>%1 hat %2 Pixel, die übrigen %3. Aufnahmen eines Stapels müssen eine Größe haben.</translation>
    </message>
    <message>
        <source>Reading %1</source>
        <translation>Gelesen werden %1</translation>
    </message>
    <message>
        <source>No frames were given. Choose pictures, or a folder of them.</source>
        <translation>Keine Aufnahmen wurden angegeben. Bilder wählen oder einen Ordner mit ihnen.</translation>
    </message>
    <message>
        <source>None of the frames can be used. %1</source>
        <translation>Keine der Aufnahmen ist zu gebrauchen. %1</translation>
    </message>
    <message>
        <source>Means and added light come from all frames together: there is no frame to tell.</source>
        <translation>Mittel und addiertes Licht kommen aus allen Aufnahmen zusammen: es gibt keine zu nennen.</translation>
    </message>
    <message>
        <source>Merging %1 of this size needs at least %2 of memory, and %3 are allowed. Allow more, or set frames aside.</source>
        <translation>%1 dieser Größe zu vereinen braucht mindestens %2 Speicher, erlaubt sind %3. Erlaube mehr oder lege Aufnahmen beiseite.</translation>
    </message>
    <message>
        <source>Reading the changed frames</source>
        <translation>Die geänderten Aufnahmen werden gelesen</translation>
    </message>
    <message>
        <source>Looking for frames</source>
        <translation>Aufnahmen werden gesucht</translation>
    </message>
    <message>
        <source>%1 has changed since it was opened. Open the frames again.</source>
        <translation>%1 hat sich geändert, seit es geöffnet wurde. Öffne die Aufnahmen noch einmal.</translation>
    </message>
    <message>
        <source>Preparing %1</source>
        <translation>Vorbereitet werden %1</translation>
    </message>
    <message>
        <source>No frame can be read to measure the spot in. The Frames step says of each why.</source>
        <translation>Keine Aufnahme ist lesbar, um den Fleck darin zu messen. Der Schritt Aufnahmen sagt von jeder, warum.</translation>
    </message>
    <message>
        <source>The spot lies outside the picture.</source>
        <translation>Der Fleck liegt außerhalb des Bildes.</translation>
    </message>
    <message>
        <source>Subjects are found in three frames or more that are in.</source>
        <translation>Motive werden in drei oder mehr beteiligten Aufnahmen gefunden.</translation>
    </message>
    <message>
        <source>None of the frames can be used. The Frames step says of each why.</source>
        <translation>Keine der Aufnahmen ist zu gebrauchen. Der Schritt Aufnahmen sagt von jeder, warum.</translation>
    </message>
    <message>
        <source>Looking at %1</source>
        <translation>Angesehen werden %1</translation>
    </message>
    <message>
        <source>%1 is one of the frames. Originals are never written over: choose another name.</source>
        <translation>%1 ist eine der Aufnahmen. Originale werden nie überschrieben: wähle einen anderen Namen.</translation>
    </message>
    <message>
        <source>No frame is left to merge: all are set aside, broken or not aligned.</source>
        <translation>Es bleibt keine Aufnahme zu vereinen: alle sind beiseite, kaputt oder nicht ausgerichtet.</translation>
    </message>
    <message>
        <source>It is not seen what turns and what stands still. Paint roughly what is sky instead.</source>
        <translation>Es ist nicht zu sehen, was sich dreht und was stillsteht. Male statt dessen grob, was Himmel ist.</translation>
    </message>
    <message>
        <source>Paint roughly what is sky first: then its border can be found.</source>
        <translation>Male zuerst grob, was Himmel ist: dann lässt sich seine Grenze finden.</translation>
    </message>
    <message>
        <source>Align by the stars first: what turns with them is sky.</source>
        <translation>Richte zuerst nach den Sternen aus: was sich mit ihnen dreht, ist Himmel.</translation>
    </message>
    <message>
        <source>the colour profile &quot;%1&quot; cannot be used</source>
        <translation>das Farbprofil &quot;%1&quot; ist nicht zu gebrauchen</translation>
    </message>
    <message>
        <source>%1 is not a clip that can be read. Copy it again, or save it as MP4.</source>
        <translation>%1 ist kein Film, der sich lesen lässt. Kopiere ihn noch einmal oder sichere ihn als MP4.</translation>
    </message>
    <message>
        <source>%1 is not there. Was it moved or renamed?</source>
        <translation>%1 gibt es nicht. Wurde es verschoben oder umbenannt?</translation>
    </message>
    <message>
        <source>The folder %1 cannot be made: %2. Choose another place.</source>
        <translation>Der Ordner %1 lässt sich nicht anlegen: %2. Einen anderen Ort wählen.</translation>
    </message>
    <message>
        <source>%1 ends at frame %2. Choose an earlier end.</source>
        <translation>%1 endet bei Bild %2. Wähle ein früheres Ende.</translation>
    </message>
    <message>
        <source>Reading frames of %1</source>
        <translation>Aufnahmen aus %1 werden gelesen</translation>
    </message>
    <message>
        <source>the encoder of clips refuses it</source>
        <translation>der Filmschreiber weist es zurück</translation>
    </message>
    <message>
        <source>not written</source>
        <translation>nicht geschrieben</translation>
    </message>
    <message>
        <source>the OpenEXR library refuses it</source>
        <translation>die OpenEXR-Bibliothek weist es zurück</translation>
    </message>
    <message>
        <source>%1 cannot be read: %2. Copy it again, or allow it to be read.</source>
        <translation>%1 lässt sich nicht lesen: %2. Noch einmal kopieren oder das Lesen erlauben.</translation>
    </message>
    <message>
        <source>%1 changed while it was read. Open the frames again.</source>
        <translation>%1 hat sich beim Lesen geändert. Öffne die Aufnahmen noch einmal.</translation>
    </message>
    <message>
        <source>%1 is broken or cut short. Copy it again from the camera.</source>
        <translation>%1 ist kaputt oder abgeschnitten. Kopiere es noch einmal aus der Kamera.</translation>
    </message>
    <message>
        <source>The folder %1 holds no pictures of a kind that can be read: %2.</source>
        <translation>Der Ordner %1 enthält keine Bilder einer lesbaren Art: %2.</translation>
    </message>
    <message>
        <source>%1 holds floats of 16 bits in a way that cannot be read here. Save it as 16-bit TIFF.</source>
        <translation>%1 enthält Gleitzahlen von 16 Bit auf eine Weise, die hier nicht lesbar ist. Sichere es als 16-Bit-TIFF.</translation>
    </message>
    <message>
        <source>%1 is broken or cut short: %2. Copy it again from the camera.</source>
        <translation>%1 ist kaputt oder abgeschnitten: %2. Kopiere es noch einmal aus der Kamera.</translation>
    </message>
    <message>
        <source>%1 is neither grey nor RGB. Save it as RGB.</source>
        <translation>%1 ist weder Grau noch RGB. Sichere es als RGB.</translation>
    </message>
    <message>
        <source>raw files</source>
        <translation>Rohdateien</translation>
    </message>
    <message>
        <source>the archive cannot be begun</source>
        <translation>das Archiv lässt sich nicht beginnen</translation>
    </message>
    <message>
        <source>the archive cannot be written</source>
        <translation>das Archiv lässt sich nicht schreiben</translation>
    </message>
    <message>
        <source>There is no room for layers in %1. Make room on that disk, or choose another place.</source>
        <translation>In %1 ist kein Platz für Ebenen. Auf der Platte Platz schaffen oder einen anderen Ort wählen.</translation>
    </message>
    <message>
        <source>%1: %2 is missing beside the program. Install Bright Pile again.</source>
        <translation>%1: %2 fehlt beim Programm. Installiere Bright Pile noch einmal.</translation>
    </message>
    <message>
        <source>%1 is not a colour profile for pictures in colour: choose an ICC file of an RGB space.</source>
        <translation>%1 ist kein Farbprofil für farbige Bilder: wähle eine ICC-Datei eines RGB-Raums.</translation>
    </message>
    <message>
        <source>There is not enough memory to develop %1. Close other programs, or set frames aside.</source>
        <translation>Der Speicher reicht nicht, um %1 zu entwickeln. Schließe andere Programme oder lege Aufnahmen beiseite.</translation>
    </message>
    <message>
        <source>%1 is not a raw file that can be read: %2. Copy it again from the camera, or use its JPEG.</source>
        <translation>%1 ist keine lesbare Rohdatei: %2. Kopiere sie noch einmal aus der Kamera oder nimm ihr JPEG.</translation>
    </message>
    <message>
        <source>%1 claims a size that cannot be true. Copy it again from the camera.</source>
        <translation>%1 behauptet eine Größe, die nicht wahr sein kann. Noch einmal von der Kamera kopieren.</translation>
    </message>
    <message>
        <source>%1 comes from a sensor without red, green and blue. Develop it to a 16-bit TIFF.</source>
        <translation>%1 kommt von einem Sensor ohne Rot, Grün und Blau. Entwickle es zu einem 16-Bit-TIFF.</translation>
    </message>
    <message>
        <source>%1 is not of the sensor size of the dark frames. Set them aside.</source>
        <translation>%1 hat nicht die Sensorgröße der Dunkelbilder. Lege diese beiseite.</translation>
    </message>
    <message>
        <source>%1 holds no mosaic, so dark frames cannot be subtracted from it. Set them aside.</source>
        <translation>%1 enthält kein Mosaik, also lassen sich keine Dunkelbilder davon abziehen. Lege sie beiseite.</translation>
    </message>
    <message>
        <source>%1 develops to another size than its header says. Use its JPEG, or develop it to a 16-bit TIFF.</source>
        <translation>%1 entwickelt sich zu einer anderen Größe, als sein Kopf sagt. Sein JPEG nehmen oder als 16-Bit-TIFF entwickeln.</translation>
    </message>
    <message>
        <source>%1 is not of the sensor size of the other darks. Set it aside.</source>
        <translation>%1 hat nicht die Sensorgröße der anderen Dunkelbilder. Lege es beiseite.</translation>
    </message>
    <message>
        <source>%1 holds no mosaic and is of no use as a dark. Set it aside.</source>
        <translation>%1 enthält kein Mosaik und taugt nicht als Dunkelbild. Lege es beiseite.</translation>
    </message>
    <message>
        <source>%1 is not a picture that can be read here. Use %2.</source>
        <translation>%1 ist kein Bild, das hier lesbar ist. Nimm %2.</translation>
    </message>
    <message>
        <source>%1 claims to be %2 x %3 pixels, which cannot be true. Copy it again from the camera.</source>
        <translation>%1 behauptet, %2 x %3 Pixel groß zu sein, was nicht wahr sein kann. Noch einmal von der Kamera kopieren.</translation>
    </message>
    <message>
        <source>%1 does not hold 8 or 16 bit samples. Save it as 16-bit TIFF.</source>
        <translation>%1 enthält keine Werte von 8 oder 16 Bit. Sichere es als 16-Bit-TIFF.</translation>
    </message>
    <message>
        <source>%1 is broken.</source>
        <translation>%1 ist kaputt.</translation>
    </message>
    <message>
        <source>%1 is not an 8-bit grey mask. Save it as grey with 8 bits.</source>
        <translation>%1 ist keine graue Maske mit 8 Bit. Als Graubild mit 8 Bit sichern.</translation>
    </message>
    <message>
        <source>the TIFF library refuses it</source>
        <translation>die TIFF-Bibliothek weist es zurück</translation>
    </message>
    <message>
        <source>This kind of picture needs %1, which does not start. Install Bright Pile again.</source>
        <translation>Diese Art Bild braucht %1, das nicht startet. Installiere Bright Pile noch einmal.</translation>
    </message>
    <message>
        <source>the picture library refuses it</source>
        <translation>die Bildbibliothek weist es zurück</translation>
    </message>
    <message>
        <source>The name %1 ends in no format that can be written: use .tif, .png, .exr, .jxl, .webp, .jpg or .ora.</source>
        <translation>Der Name %1 endet auf kein Format, das geschrieben werden kann: nimm .tif, .png, .exr, .jxl, .webp, .jpg oder .ora.</translation>
    </message>
    <message>
        <source>%1 was not written: its format holds %2 pixels a side at most. Write it smaller, or as .tif.</source>
        <translation>%1 wurde nicht geschrieben: sein Format fasst höchstens %2 Pixel je Seite. Schreibe es kleiner oder als .tif.</translation>
    </message>
    <message>
        <source>A mask cannot be made into a picture.</source>
        <translation>Aus einer Maske lässt sich kein Bild machen.</translation>
    </message>
    <message>
        <source>%1 was not written, because it could not be opened again: %2 What was there before is unchanged.</source>
        <translation>%1 wurde nicht geschrieben, weil es sich nicht wieder öffnen ließe: %2 Was zuvor da war, ist unverändert.</translation>
    </message>
    <message>
        <source>it would be another pile.</source>
        <translation>es wäre ein anderer Stapel.</translation>
    </message>
    <message>
        <source>%1 Point to it in the Frames step.</source>
        <translation>%1 Zeige im Schritt Aufnahmen darauf.</translation>
    </message>
    <message>
        <source>%1 is not the file it was when the pile was saved. Point to the right one, or take it as it is.</source>
        <translation>%1 ist nicht die Datei, die es war, als der Stapel gesichert wurde. Zeige auf die richtige, oder nimm sie, wie sie ist.</translation>
    </message>
    <message>
        <source>%1 is of another size than the rest. Point to the file that it was.</source>
        <translation>%1 ist anders groß als die übrigen. Auf die Datei zeigen, die es war.</translation>
    </message>
    <message>
        <source>%1 was not written, because it could not be opened again. What was there before is unchanged.</source>
        <translation>%1 wurde nicht geschrieben, weil es sich nicht wieder öffnen ließe. Was zuvor da war, ist unverändert.</translation>
    </message>
    <message>
        <source>What was mended from a frame is mended from what surrounds it: look at it.</source>
        <translation>Was aus einer Aufnahme ausgebessert war, ist es jetzt aus seiner Umgebung: sieh es an.</translation>
    </message>
    <message>
        <source>Parts of its frames are not taken.</source>
        <translation>Teile aus seinen Aufnahmen werden nicht übernommen.</translation>
    </message>
    <message>
        <source>Where its sky and land are is not taken: all is aligned and merged as its sky.</source>
        <translation>Wo sein Himmel und Land liegen, wird nicht übernommen: alles wird ausgerichtet und vereint wie sein Himmel.</translation>
    </message>
    <message>
        <source>Where aligning may look is not taken.</source>
        <translation>Wo ausgerichtet wird, wird nicht übernommen.</translation>
    </message>
    <message>
        <source>Its crop and its level horizon are not taken.</source>
        <translation>Sein Beschnitt und sein waagrechter Horizont werden nicht übernommen.</translation>
    </message>
    <message>
        <source>Dust on the sensor is not taken: the frames are of another size.</source>
        <translation>Staub auf dem Sensor wird nicht übernommen: die Aufnahmen haben eine andere Größe.</translation>
    </message>
    <message>
        <source>Which frames were set aside is not taken.</source>
        <translation>Welche Aufnahmen beiseite waren, wird nicht übernommen.</translation>
    </message>
    <message>
        <source>Looks, levels, strengths and left out areas of single frames are not taken.</source>
        <translation>Looks, Pegel, Stärken und weggelassene Gebiete einzelner Aufnahmen werden nicht übernommen.</translation>
    </message>
    <message>
        <source>%1 is not of the size and kind of the frames. Darks must come from the same camera.</source>
        <translation>%1 hat nicht Größe und Art der Aufnahmen. Dunkelbilder müssen aus derselben Kamera kommen.</translation>
    </message>
    <message>
        <source>%1 was taken at ISO %2, the frames at %3. Take darks at the ISO of the frames.</source>
        <translation>%1 entstand mit ISO %2, die Aufnahmen mit %3. Nimm Dunkelbilder mit der ISO der Aufnahmen.</translation>
    </message>
    <message>
        <source>%1 was exposed for %2 s, the frames for %3 s. Take darks as long as the frames, or have them scaled.</source>
        <translation>%1 war %2 s belichtet, die Aufnahmen %3 s. Nimm Dunkelbilder, so lang wie die Aufnahmen, oder lass sie anpassen.</translation>
    </message>
    <message>
        <source>The reference frame is not in the pile: the first one takes its place. Align again.</source>
        <translation>Die Referenz ist nicht im Stapel: die erste Aufnahme tritt an ihre Stelle. Richte noch einmal aus.</translation>
    </message>
    <message>
        <source>The base frame is not in the pile: the first one takes its place.</source>
        <translation>Die Grundlage ist nicht im Stapel: die erste Aufnahme tritt an ihre Stelle.</translation>
    </message>
    <message>
        <source>The colour profile does not fit the picture: sRGB takes its place.</source>
        <translation>Das Farbprofil passt nicht zum Bild: sRGB tritt an seine Stelle.</translation>
    </message>
    <message>
        <source>it holds no finish.json</source>
        <translation>es enthält keine finish.json</translation>
    </message>
    <message>
        <source>its finish.json is damaged</source>
        <translation>seine finish.json ist beschädigt</translation>
    </message>
    <message>
        <source>it was made by another program</source>
        <translation>es stammt von einem anderen Programm</translation>
    </message>
    <message>
        <source>it was saved by a newer Bright Pile; install that one</source>
        <translation>es wurde von einem neueren Bright Pile gesichert; installiere dieses</translation>
    </message>
    <message>
        <source>it holds no pile.json</source>
        <translation>es enthält keine pile.json</translation>
    </message>
    <message>
        <source>its pile.json is damaged</source>
        <translation>seine pile.json ist beschädigt</translation>
    </message>
    <message>
        <source>its picture size cannot be true</source>
        <translation>seine Bildgröße kann nicht stimmen</translation>
    </message>
    <message>
        <source>none of its frames can be read</source>
        <translation>keine seiner Aufnahmen ist lesbar</translation>
    </message>
    <message>
        <source>A sensor spot could not be read and is left out.</source>
        <translation>Ein Sensorfleck war nicht lesbar und bleibt weg.</translation>
    </message>
    <message>
        <source>The frame %1 could not be read and is left out.</source>
        <translation>Die Aufnahme %1 war nicht lesbar und bleibt weg.</translation>
    </message>
    <message>
        <source>A streak of the frame %1 could not be read and is left out.</source>
        <translation>Ein Streifen der Aufnahme %1 war nicht lesbar und bleibt weg.</translation>
    </message>
    <message>
        <source>The part %1 could not be read and is left out.</source>
        <translation>Das Teil %1 war nicht lesbar und bleibt weg.</translation>
    </message>
    <message>
        <source>A mended place could not be read and is left out.</source>
        <translation>Eine ausgebesserte Stelle war nicht lesbar und bleibt weg.</translation>
    </message>
    <message>
        <source>The place %1 could not be read and is left out.</source>
        <translation>Die Stelle %1 war nicht lesbar und bleibt weg.</translation>
    </message>
    <message>
        <source>Where the frame %1 lies could not be read: it counts as not aligned. Align again.</source>
        <translation>Wo die Aufnahme %1 liegt, war nicht lesbar: sie gilt als nicht ausgerichtet. Richte noch einmal aus.</translation>
    </message>
    <message>
        <source>The value “%1” could not be read and is as in a new pile.</source>
        <translation>Der Wert “%1” war nicht lesbar und ist wie in einem neuen Stapel.</translation>
    </message>
    <message>
        <source>The value “%1” of %2 could not be read and is as in a new pile.</source>
        <translation>Der Wert “%1” von %2 war nicht lesbar und ist wie in einem neuen Stapel.</translation>
    </message>
    <message>
        <source>its list of contents is damaged</source>
        <translation>sein Verzeichnis ist beschädigt</translation>
    </message>
    <message>
        <source>it claims to hold more than any pile does</source>
        <translation>es behauptet, mehr zu enthalten als jeder Stapel</translation>
    </message>
    <message>
        <source>it is cut short or damaged</source>
        <translation>es ist abgeschnitten oder beschädigt</translation>
    </message>
    <message>
        <source>Following edges</source>
        <translation>Kanten wird gefolgt</translation>
    </message>
    <message>
        <source>Exposing %1</source>
        <translation>%1 wird belichtet</translation>
    </message>
    <message>
        <source>The sky turns over Skerrow light</source>
        <translation>Der Himmel dreht sich über Skerrows Leuchtturm</translation>
    </message>
    <message>
        <source>The fish quay, full of people</source>
        <translation>Der Fischkai, voller Leute</translation>
    </message>
    <message>
        <source>A chandler&apos;s shelf by lamplight</source>
        <translation>Ein Regal beim Schiffsausrüster im Lampenlicht</translation>
    </message>
    <message>
        <source>A heron crosses the creek</source>
        <translation>Ein Reiher überquert den Priel</translation>
    </message>
    <message>
        <source>Meteors over the sea, five hours long</source>
        <translation>Meteore über dem Meer, fünf Stunden lang</translation>
    </message>
    <message>
        <source>Five cats, never all looking</source>
        <translation>Fünf Katzen, die nie alle hersehen</translation>
    </message>
    <message>
        <source>A boat lit from every side</source>
        <translation>Ein Boot, von allen Seiten beleuchtet</translation>
    </message>
    <message>
        <source>Fireflies over a still marsh</source>
        <translation>Glühwürmchen über stillem Moor</translation>
    </message>
    <message>
        <source>Fountains of sparks in the forge&apos;s yard</source>
        <translation>Funkenfontänen im Hof der Schmiede</translation>
    </message>
    <message>
        <source>A range of colours could not be read and is left out.</source>
        <translation>Ein Farbbereich war nicht lesbar und bleibt weg.</translation>
    </message>
    <message>
        <source>A picture of the export could not be read and is left out.</source>
        <translation>Ein Bild des Exports war nicht lesbar und bleibt weg.</translation>
    </message>
    <message>
        <source>a copy of %1</source>
        <translation>eine Kopie von %1</translation>
    </message>
    <message>
        <source>%1 is not a pile that can be opened: %2. Open a copy of it, or its frames.</source>
        <translation>%1 ist kein Stapel, der sich öffnen lässt: %2. Öffne eine Kopie davon oder seine Aufnahmen.</translation>
    </message>
    <message>
        <source>%1 is not a finish file that can be opened: %2. Choose another one.</source>
        <translation>%1 ist keine Vollendung, die sich öffnen lässt: %2. Wähle eine andere.</translation>
    </message>
</context>
<context>
    <name>main</name>
    <message>
        <source>Aligns and merges a run of frames of one scene.</source>
        <translation>Richtet einen Lauf von Aufnahmen einer Szene aus und vereint sie.</translation>
    </message>
    <message>
        <source>Open a scene of Skerrow harbour.</source>
        <translation>Eine Szene aus dem Hafen von Skerrow öffnen.</translation>
    </message>
    <message>
        <source>Frames, folders or a pile</source>
        <translation>Aufnahmen, Ordner oder ein Stapel</translation>
    </message>
</context>
</TS>
