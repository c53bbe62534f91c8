using BlueDawn.Core.Kits;
using BlueDawn.Core.Tests.Trays;
using BlueDawn.Core.Trays;

namespace BlueDawn.Core.Tests.Kits;

/// <summary>Date code and engine plate stay with the tray as they were read.</summary>
public class MarksTests
{
    [Fact]
    public void The_last_that_was_read_stands_and_the_same_again_is_nothing_new()
    {
        var tray = TestTray.Untouched();
        Assert.Equal(MarksNote.None, tray.Book.State<KitsState>().Marks);
        tray.Does(new MarksNote("2214", "")).Does(new MarksNote("2214", "K170/0414"));
        Assert.Equal(new MarksNote("2214", "K170/0414"), tray.Book.State<KitsState>().Marks);
        Assert.True(MarksNote.Kind.ChangesNothing(new MarksNote("2214", "K170/0414"), tray.Book));
        Assert.False(MarksNote.Kind.ChangesNothing(new MarksNote("2214", ""), tray.Book));
        Assert.Equal("Date code 2214, engine plate K170/0414", StationList.Say(tray.Log.Entries[^1], tray.Book).ToString());
        Assert.Equal("Date code 2214, engine plate not read", StationList.Say(tray.Log.Entries[^2], tray.Book).ToString());
    }

    [Fact]
    public void What_is_too_long_is_asked_about() =>
        Assert.Equal("note.plate", Assert.Single(TestTray.Untouched().Refuses(new MarksNote("", new string('1', 41)))!.Fields).Field);
}
