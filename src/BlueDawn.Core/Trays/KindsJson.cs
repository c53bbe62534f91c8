using System.Text.Json.Serialization;
using BlueDawn.Core.Chokes;
using BlueDawn.Core.Cleaning;
using BlueDawn.Core.Faults;
using BlueDawn.Core.Gauging;
using BlueDawn.Core.Handover;
using BlueDawn.Core.Holding;
using BlueDawn.Core.Intake;
using BlueDawn.Core.Kits;
using BlueDawn.Core.Logbook;
using BlueDawn.Core.Parts;
using BlueDawn.Core.Proving;
using BlueDawn.Core.Setting;
using BlueDawn.Core.Stations;

namespace BlueDawn.Core.Trays;

/// <summary>Every kind of note and reading, so that a device need not look at the classes; a test asks for one that is missing.</summary>
[JsonSourceGenerationOptions(GenerationMode = JsonSourceGenerationMode.Metadata)]
[JsonSerializable(typeof(ApartNote))]
[JsonSerializable(typeof(ArrivedNote))]
[JsonSerializable(typeof(BackNote))]
[JsonSerializable(typeof(BasketNote))]
[JsonSerializable(typeof(CheckedInNote))]
[JsonSerializable(typeof(DryNote))]
[JsonSerializable(typeof(FactsNote))]
[JsonSerializable(typeof(FaultNote))]
[JsonSerializable(typeof(FindingsNote))]
[JsonSerializable(typeof(FittingNote))]
[JsonSerializable(typeof(JobNote))]
[JsonSerializable(typeof(MarksNote))]
[JsonSerializable(typeof(MethodNote))]
[JsonSerializable(typeof(OldPartNote))]
[JsonSerializable(typeof(OrderUndoneNote))]
[JsonSerializable(typeof(OrderedNote))]
[JsonSerializable(typeof(OutNote))]
[JsonSerializable(typeof(PartsHereNote))]
[JsonSerializable(typeof(PassageNote))]
[JsonSerializable(typeof(PhotoNote))]
[JsonSerializable(typeof(PutRightNote))]
[JsonSerializable(typeof(ReadingNote))]
[JsonSerializable(typeof(ReleaseNote))]
[JsonSerializable(typeof(SafetyNote))]
[JsonSerializable(typeof(SheetNote))]
[JsonSerializable(typeof(SoilsNote))]
[JsonSerializable(typeof(StaysNote))]
[JsonSerializable(typeof(ToldNote))]
[JsonSerializable(typeof(UndoNote))]
[JsonSerializable(typeof(UnfitNote))]
[JsonSerializable(typeof(WithdrawalNote))]
[JsonSerializable(typeof(WordsNote))]
[JsonSerializable(typeof(BoreReading))]
[JsonSerializable(typeof(BowlGasketReading))]
[JsonSerializable(typeof(BulbStrokesReading))]
[JsonSerializable(typeof(ComplaintReading))]
[JsonSerializable(typeof(CompressionReading))]
[JsonSerializable(typeof(FailureTimeReading))]
[JsonSerializable(typeof(FloatDropReading))]
[JsonSerializable(typeof(FloatHeightReading))]
[JsonSerializable(typeof(FloatMassReading))]
[JsonSerializable(typeof(FuelWatchReading))]
[JsonSerializable(typeof(HoldReading))]
[JsonSerializable(typeof(LeverHeightReading))]
[JsonSerializable(typeof(LookReading))]
[JsonSerializable(typeof(MissingFuelReading))]
[JsonSerializable(typeof(OpeningReading))]
[JsonSerializable(typeof(PopOffReading))]
[JsonSerializable(typeof(ReturnSpringReading))]
[JsonSerializable(typeof(RodTravelReading))]
[JsonSerializable(typeof(SeatBoreReading))]
[JsonSerializable(typeof(SpeedReading))]
[JsonSerializable(typeof(StepUpReading))]
[JsonSerializable(typeof(SuctionForceReading))]
[JsonSerializable(typeof(WarmStripReading))]
[JsonSerializable(typeof(WarmWaterReading))]
internal sealed partial class KindsJson : JsonSerializerContext;
