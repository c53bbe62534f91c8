using System.Net.Http.Headers;
using System.Text;
using SkiaSharp;

namespace BlueDawn.Server.Tests.Intake;

public class PhotoTests(Shop shop)
{
    private const string Place = "N51 02 17 E003 44 09";

    [Theory]
    [InlineData(SKEncodedImageFormat.Jpeg)]
    [InlineData(SKEncodedImageFormat.Png)]
    [InlineData(SKEncodedImageFormat.Webp)]
    public async Task A_photo_is_made_anew_as_jpeg_and_nothing_of_the_file_stays(SKEncodedImageFormat format)
    {
        var jory = await shop.SignInAsync("jory");
        var number = await jory.NewTrayAsync();
        var file = Picture(format, 60, 40);
        if (format == SKEncodedImageFormat.Jpeg)
        {
            file = WithExif(file, orientation: 6); // held upright: turned a quarter
        }

        var id = Guid.CreateVersion7();
        var added = await AddAsync(jory, number, file, id);
        Assert.Equal(HttpStatusCode.OK, added.Status);
        var (width, height) = (added.Body.GetProperty("width").GetInt32(), added.Body.GetProperty("height").GetInt32());
        Assert.Equal(format == SKEncodedImageFormat.Jpeg ? (40, 60) : (60, 40), (width, height));
        Assert.Equal(HttpStatusCode.OK, (await AddAsync(jory, number, file, id)).Status);
        Assert.Equal(1, (await jory.GetAsync($"/api/trays/{number}/photos")).Body.GetArrayLength());

        var kept = await jory.Http.GetByteArrayAsync($"/api/photos/{id}", TestContext.Current.CancellationToken);
        Assert.Equal([0xFF, 0xD8, 0xFF], kept[..3]);
        Assert.DoesNotContain(Place, Encoding.Latin1.GetString(kept), StringComparison.Ordinal);
        Assert.DoesNotContain("Exif", Encoding.Latin1.GetString(kept), StringComparison.Ordinal);
    }

    [Fact]
    public async Task The_same_photo_sent_at_once_is_one_photo_and_its_id_is_taken_for_another_tray()
    {
        var jory = await shop.SignInAsync("jory");
        var (number, other) = (await jory.NewTrayAsync(), await jory.NewTrayAsync());
        var file = Picture(SKEncodedImageFormat.Png, 60, 40);
        for (var i = 0; i < 4; i++)
        {
            var id = Guid.CreateVersion7();
            var answers = await Task.WhenAll(Enumerable.Range(0, 5).Select(_ => AddAsync(jory, number, file, id)));
            Assert.All(answers, answer => Assert.Equal(HttpStatusCode.OK, answer.Status));
            Assert.Equal(HttpStatusCode.Conflict, (await AddAsync(jory, other, file, id)).Status);
        }

        Assert.Equal(4, (await jory.GetAsync($"/api/trays/{number}/photos")).Body.GetArrayLength());
        Assert.Equal(4, (await jory.GetAsync($"/api/trays/{number}")).Body.Log("photo").Count);
    }

    [Fact]
    public async Task What_is_no_picture_is_refused_whatever_it_calls_itself()
    {
        var jory = await shop.SignInAsync("jory");
        var number = await jory.NewTrayAsync();
        Assert.Contains(
            "JPEG, PNG or WebP",
            (await AddAsync(jory, number, Encoding.UTF8.GetBytes("<svg xmlns='http://www.w3.org/2000/svg'/>"))).Error("photo"),
            StringComparison.Ordinal
        );
        Assert.Contains(
            "damaged",
            (await AddAsync(jory, number, Picture(SKEncodedImageFormat.Png, 300, 300)[..200])).Error("photo"),
            StringComparison.Ordinal
        );
        Assert.NotEmpty((await AddAsync(jory, number, [])).Error("photo"));
        Assert.Equal(0, (await jory.GetAsync($"/api/trays/{number}/photos")).Body.GetArrayLength());
        Assert.Equal(HttpStatusCode.NotFound, (await AddAsync(jory, 9999, Picture(SKEncodedImageFormat.Png, 4, 4))).Status);
        using var nothing = await jory.Http.GetAsync($"/api/photos/{Guid.CreateVersion7()}", TestContext.Current.CancellationToken);
        Assert.Equal(HttpStatusCode.NotFound, nothing.StatusCode);
    }

    [Fact]
    public async Task A_large_photo_is_made_smaller()
    {
        var jory = await shop.SignInAsync("jory");
        var number = await jory.NewTrayAsync();
        var added = await AddAsync(jory, number, Picture(SKEncodedImageFormat.Jpeg, 4000, 1000));
        Assert.Equal((2048, 512), (added.Body.GetProperty("width").GetInt32(), added.Body.GetProperty("height").GetInt32()));
    }

    [Fact]
    public async Task A_photo_can_be_of_one_part()
    {
        var jory = await shop.SignInAsync("jory");
        var number = await jory.NewTrayAsync();
        await AddAsync(jory, number, Picture(SKEncodedImageFormat.Png, 4, 4));
        await AddAsync(jory, number, Picture(SKEncodedImageFormat.Png, 4, 4), part: "bowl");
        var parts = (await jory.GetAsync($"/api/trays/{number}/photos"))
            .Body.EnumerateArray()
            .Select(photo => photo.GetProperty("part").GetString());
        Assert.Equal([null, "bowl"], parts.Order());
    }

    internal static Task<Answer> AddAsync(Visitor visitor, int number, byte[] file, Guid? id = null, string? part = null) =>
        visitor.SendAsync(
            new HttpRequestMessage(
                HttpMethod.Put,
                $"/api/trays/{number}/photos/{id ?? Guid.CreateVersion7()}{(part is null ? "" : $"?part={part}")}"
            )
            {
                Content = new ByteArrayContent(file) { Headers = { ContentType = new MediaTypeHeaderValue("image/jpeg") } },
            }
        );

    internal static byte[] Picture(SKEncodedImageFormat format, int width, int height)
    {
        using var bitmap = new SKBitmap(width, height);
        using var canvas = new SKCanvas(bitmap);
        canvas.Clear(SKColors.SteelBlue);
        using var data = bitmap.Encode(format, 90);
        return data.ToArray();
    }

    /// <summary>The same JPEG with an Exif block behind its first marker: an orientation and a place in plain text.</summary>
    private static byte[] WithExif(byte[] jpeg, byte orientation)
    {
        // TIFF header, one directory with two entries: Orientation (0x0112, short) and ImageDescription (0x010E, text).
        var text = Encoding.ASCII.GetBytes(Place + "\0");
        byte[] tiff =
        [
            (byte)'I',
            (byte)'I',
            42,
            0,
            8,
            0,
            0,
            0,
            2,
            0,
            0x0E,
            0x01,
            2,
            0,
            (byte)text.Length,
            0,
            0,
            0,
            38,
            0,
            0,
            0,
            0x12,
            0x01,
            3,
            0,
            1,
            0,
            0,
            0,
            orientation,
            0,
            0,
            0,
            0,
            0,
            0,
            0,
            .. text,
        ];
        byte[] block = [.. "Exif\0\0"u8, .. tiff];
        var length = block.Length + 2;
        return [.. jpeg[..2], 0xFF, 0xE1, (byte)(length >> 8), (byte)length, .. block, .. jpeg[2..]];
    }
}
