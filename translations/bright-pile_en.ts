<?xml version="1.0" encoding="utf-8"?>
<!DOCTYPE TS>
<TS version="2.1" language="en" sourcelanguage="en">
<context>
    <name>Merge</name>
    <message numerus="yes">
        <source>%n frames</source>
        <translation>
            <numerusform>%n frame</numerusform>
            <numerusform>%n frames</numerusform>
        </translation>
    </message>
</context>
<context>
    <name>bp::app::CurvePad</name>
    <message numerus="yes">
        <source>%n point(s). Insert adds one, Page Up and Page Down choose one</source>
        <translation>
            <numerusform>%n point. Insert adds one, Page Up and Page Down choose one</numerusform>
            <numerusform>%n points. Insert adds one, Page Up and Page Down choose one</numerusform>
        </translation>
    </message>
</context>
<context>
    <name>bp::app::EvenSensor</name>
    <message numerus="yes">
        <source>%n frame(s) without a dark that fits.</source>
        <translation>
            <numerusform>%n frame without a dark that fits.</numerusform>
            <numerusform>%n frames without a dark that fits.</numerusform>
        </translation>
    </message>
</context>
<context>
    <name>bp::app::EvenStep</name>
    <message numerus="yes">
        <source>%n with an own look</source>
        <translation>
            <numerusform>%n with an own look</numerusform>
            <numerusform>%n with an own look</numerusform>
        </translation>
    </message>
</context>
<context>
    <name>bp::app::ExportStep</name>
    <message numerus="yes">
        <source>%n place(s) to look at</source>
        <translation>
            <numerusform>%n place to look at</numerusform>
            <numerusform>%n places to look at</numerusform>
        </translation>
    </message>
    <message numerus="yes">
        <source>Export %n pictures…</source>
        <translation>
            <numerusform>Export %n pictures…</numerusform>
            <numerusform>Export %n pictures…</numerusform>
        </translation>
    </message>
</context>
<context>
    <name>bp::app::FinishStep</name>
    <message numerus="yes">
        <source>%n place(s)</source>
        <translation>
            <numerusform>%n place</numerusform>
            <numerusform>%n places</numerusform>
        </translation>
    </message>
    <message numerus="yes">
        <source>%n mended</source>
        <translation>
            <numerusform>%n mended</numerusform>
            <numerusform>%n mended</numerusform>
        </translation>
    </message>
</context>
<context>
    <name>bp::app::FramesStep</name>
    <message numerus="yes">
        <source>Taken for %1, a guess by %n frame(s) of %2, one every %3. It is:</source>
        <translation>
            <numerusform>Taken for %1, a guess by %n frame of %2, one every %3. It is:</numerusform>
            <numerusform>Taken for %1, a guess by %n frames of %2, one every %3. It is:</numerusform>
        </translation>
    </message>
    <message numerus="yes">
        <source>Set aside %n odd frame(s)</source>
        <translation>
            <numerusform>Set aside %n odd frame</numerusform>
            <numerusform>Set aside %n odd frames</numerusform>
        </translation>
    </message>
    <message numerus="yes">
        <source>Take back %n odd frame(s)</source>
        <translation>
            <numerusform>Take back %n odd frame</numerusform>
            <numerusform>Take back %n odd frames</numerusform>
        </translation>
    </message>
</context>
<context>
    <name>bp::app::LeftOutTarget</name>
    <message numerus="yes">
        <source>Leave out of %n frame(s)</source>
        <translation>
            <numerusform>Leave out of %n frame</numerusform>
            <numerusform>Leave out of %n frames</numerusform>
        </translation>
    </message>
    <message numerus="yes">
        <source>Take in again in %n frame(s)</source>
        <translation>
            <numerusform>Take in again in %n frame</numerusform>
            <numerusform>Take in again in %n frames</numerusform>
        </translation>
    </message>
</context>
<context>
    <name>bp::app::MainWindow</name>
    <message numerus="yes">
        <source>Export %n picture(s) to a folder</source>
        <translation>
            <numerusform>Export %n picture to a folder</numerusform>
            <numerusform>Export %n pictures to a folder</numerusform>
        </translation>
    </message>
</context>
<context>
    <name>bp::app::MergeHead</name>
    <message numerus="yes">
        <source>%n frames</source>
        <translation>
            <numerusform>%n frame</numerusform>
            <numerusform>%n frames</numerusform>
        </translation>
    </message>
</context>
<context>
    <name>bp::app::MergeLeaveOut</name>
    <message numerus="yes">
        <source>Take in again in %n frame(s)</source>
        <translation>
            <numerusform>Take in again in %n frame</numerusform>
            <numerusform>Take in again in %n frames</numerusform>
        </translation>
    </message>
    <message numerus="yes">
        <source>What you paint over takes no part in the %n selected frame(s).</source>
        <translation>
            <numerusform>What you paint over takes no part in the %n selected frame.</numerusform>
            <numerusform>What you paint over takes no part in the %n selected frames.</numerusform>
        </translation>
    </message>
</context>
<context>
    <name>bp::app::MergeStreaks</name>
    <message numerus="yes">
        <source>Leave out %n streak(s)</source>
        <translation>
            <numerusform>Leave out %n streak</numerusform>
            <numerusform>Leave out %n streaks</numerusform>
        </translation>
    </message>
    <message numerus="yes">
        <source>Take in %n streak(s)</source>
        <translation>
            <numerusform>Take in %n streak</numerusform>
            <numerusform>Take in %n streaks</numerusform>
        </translation>
    </message>
</context>
<context>
    <name>bp::app::Notices</name>
    <message numerus="yes">
        <source>   %n more</source>
        <translation>
            <numerusform>   %n more</numerusform>
            <numerusform>   %n more</numerusform>
        </translation>
    </message>
</context>
<context>
    <name>bp::app::PartsSequence</name>
    <message numerus="yes">
        <source>Every %n frame(s)</source>
        <translation>
            <numerusform>Every %n frame</numerusform>
            <numerusform>Every %n frames</numerusform>
        </translation>
    </message>
    <message numerus="yes">
        <source>%n place(s) cover others, the first that of frame %1 by that of frame %2.</source>
        <translation>
            <numerusform>%n place cover others, the first that of frame %1 by that of frame %2.</numerusform>
            <numerusform>%n places cover others, the first that of frame %1 by that of frame %2.</numerusform>
        </translation>
    </message>
</context>
<context>
    <name>bp::app::Studio</name>
    <message numerus="yes">
        <source>%n frame(s) missing.</source>
        <translation>
            <numerusform>%n frame missing.</numerusform>
            <numerusform>%n frames missing.</numerusform>
        </translation>
    </message>
    <message numerus="yes">
        <source>%n frame(s) changed since the pile was saved.</source>
        <translation>
            <numerusform>%n frame changed since the pile was saved.</numerusform>
            <numerusform>%n frames changed since the pile was saved.</numerusform>
        </translation>
    </message>
    <message numerus="yes">
        <source>Add %n frame(s)</source>
        <translation>
            <numerusform>Add %n frame</numerusform>
            <numerusform>Add %n frames</numerusform>
        </translation>
    </message>
    <message numerus="yes">
        <source>Set aside %n frame(s)</source>
        <translation>
            <numerusform>Set aside %n frame</numerusform>
            <numerusform>Set aside %n frames</numerusform>
        </translation>
    </message>
    <message numerus="yes">
        <source>Take back %n frame(s)</source>
        <translation>
            <numerusform>Take back %n frame</numerusform>
            <numerusform>Take back %n frames</numerusform>
        </translation>
    </message>
    <message numerus="yes">
        <source>Remove %n frame(s)</source>
        <translation>
            <numerusform>Remove %n frame</numerusform>
            <numerusform>Remove %n frames</numerusform>
        </translation>
    </message>
    <message numerus="yes">
        <source>%n frame(s) could not be aligned, and will not be merged.</source>
        <translation>
            <numerusform>%n frame could not be aligned, and will not be merged.</numerusform>
            <numerusform>%n frames could not be aligned, and will not be merged.</numerusform>
        </translation>
    </message>
    <message numerus="yes">
        <source>%n hot pixel(s) mended in all frames.</source>
        <translation>
            <numerusform>%n hot pixel mended in all frames.</numerusform>
            <numerusform>%n hot pixels mended in all frames.</numerusform>
        </translation>
    </message>
    <message numerus="yes">
        <source>%n streak(s) found.</source>
        <translation>
            <numerusform>%n streak found.</numerusform>
            <numerusform>%n streaks found.</numerusform>
        </translation>
    </message>
    <message numerus="yes">
        <source>%n subject(s) found.</source>
        <translation>
            <numerusform>%n subject found.</numerusform>
            <numerusform>%n subjects found.</numerusform>
        </translation>
    </message>
    <message numerus="yes">
        <source>%n meteor(s) laid over the picture.</source>
        <translation>
            <numerusform>%n meteor laid over the picture.</numerusform>
            <numerusform>%n meteors laid over the picture.</numerusform>
        </translation>
    </message>
    <message numerus="yes">
        <source>measuring %n spot(s)</source>
        <translation>
            <numerusform>measuring %n spot</numerusform>
            <numerusform>measuring %n spots</numerusform>
        </translation>
    </message>
    <message numerus="yes">
        <source>Mend %n sensor spot(s)</source>
        <translation>
            <numerusform>Mend %n sensor spot</numerusform>
            <numerusform>Mend %n sensor spots</numerusform>
        </translation>
    </message>
    <message numerus="yes">
        <source>%n suspected sensor spot(s). Tick those that are dust, or click on them.</source>
        <translation>
            <numerusform>%n suspected sensor spot. Tick those that are dust, or click on them.</numerusform>
            <numerusform>%n suspected sensor spots. Tick those that are dust, or click on them.</numerusform>
        </translation>
    </message>
    <message numerus="yes">
        <source>%n frame(s) could not be levelled: too dark, or clipped.</source>
        <translation>
            <numerusform>%n frame could not be levelled: too dark, or clipped.</numerusform>
            <numerusform>%n frames could not be levelled: too dark, or clipped.</numerusform>
        </translation>
    </message>
</context>
</TS>
