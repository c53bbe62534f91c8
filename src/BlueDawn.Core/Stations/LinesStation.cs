namespace BlueDawn.Core.Stations;

/// <summary>A station that reads gauge lines.</summary>
public abstract class LinesStation : StationModule
{
    /// <inheritdoc/>
    public override StationState State(TrayBook tray) => new LinesState(Station, tray);
}
