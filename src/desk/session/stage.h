// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <atomic>
#include <map>
#include <memory>
#include <optional>
#include <set>

#include <QElapsedTimer>
#include <QFutureWatcher>
#include <QObject>
#include <QTimer>

#include "core/media/media.h"
#include "core/music/analysis.h"
#include "core/preview/stripview.h"
#include "core/wire/power.h"
#include "desk/session/document.h"
#include "desk/session/outsidefiles.h"
#include "desk/session/screenwatch.h"
#include "engine/night/stagehand.h"
#include "engine/player.h"

namespace chispa::desk {

/// Keeps the engine playing what the document says: compiles each new value on a worker, loads and analyses
/// music, and tells the window what is heard and lit now. UI thread.
class Stage : public QObject {
  Q_OBJECT
 public:
  Stage(Document& document, std::unique_ptr<engine::Sound> sound, QObject* parent = nullptr);
  ~Stage() override;

  engine::Player& player() { return player_; }
  Document& document() { return document_; }

  /// The score that is open; null if the show has none.
  const Score* score() const;
  void openScore(ScoreId id);
  /// Music of the open score; null while it is being analysed, or if there is none.
  std::shared_ptr<const AnalysedAudio> audio() const;
  bool isAnalysing() const { return analysing_ > 0; }
  /// Why a file named by a score could not be read; empty if it could.
  QString audioTrouble(const std::string& name) const;

  bool isPlaying() const { return player_.isPlaying(); }
  Micros position() const { return player_.position(); }
  void play();
  void pause();
  void togglePlaying();
  void seek(Micros position);
  /// As seek(), under the hand: while nothing plays, the sound there is heard until endScrub(), if wanted.
  void scrub(Micros position);
  void endScrub();
  /// Whether scrubbing is heard; remembered from session to session.
  bool hearsScrubbing() const;
  void setHearsScrubbing(bool on);
  /// Whether the light is drawn as the strips show it, in place of as it is meant; remembered.
  bool showsAsStrips() const { return showsAsStrips_; }
  void setShowsAsStrips(bool on);
  void setLooping(bool on);
  bool isLooping() const { return looping_; }
  /// Only this stretch of the score plays; none plays all of it.
  void setPart(std::optional<TimeSpan> part);
  const std::optional<TimeSpan>& part() const { return part_; }
  /// 1, or less for slow: the sound keeps its pitch. It is made on a worker; until then the slow score is
  /// silent.
  void setRate(double rate);
  double rate() const { return rate_; }
  /// A bar of clicks before what plays next.
  void setCountIn(bool on) { countsIn_ = on; }
  bool countsIn() const { return countsIn_; }
  /// A click on each beat of the open score while it plays at its own speed.
  void setHearsBeats(bool on);
  bool hearsBeats() const { return hearsBeats_; }
  /// Pictures and videos that clips show, as far as they are loaded.
  const MediaLibrary& media() const { return media_; }
  /// Why a picture cannot be shown; empty if it can, or is being loaded.
  QString mediaTrouble(const std::string& name) const;
  /// What the show may read beyond its own folder.
  OutsideFiles& outsideFiles() { return outside_; }
  /// Why spyholes show nothing; empty if they do, or there are none.
  QString screenTrouble() const { return screens_.trouble(); }

  /// A click at each full second, and the clock that goes with it, until pause(); no score plays meanwhile.
  void playClicks();

  /// What is played by hand, as of the last tick.
  const engine::LiveSnapshot& live() const { return live_; }
  /// Plays by hand; the next frame has it.
  void play(const LiveEvent& event) { player_.live(engine::LiveSource::Window, event); }
  /// Lights a look, if need be once it is compiled.
  void light(LookId look);
  /// Keeps what is played to the score from now on, to be written into it.
  void beginKeeping();
  /// The notes since then; keeps no more.
  std::vector<LiveNote> endKeeping();
  bool isKeeping() const { return isKeeping_; }
  /// A set list plays this score: it is the open one now.
  void showPerformed(const engine::Stagehand::ScorePlay& play);
  /// The sound of a score as it is to be played, null if it has none; nothing while it is being read.
  std::optional<std::shared_ptr<const AudioClip>> soundOf(const Score& score) const;
  /// Hears the desks that the show listens to; says why not if it cannot.
  QString listenToDesks(std::optional<engine::DeskListener::Options> options);

  bool isLit() const { return lit_; }
  void switchLight(bool on);
  void setSignal(std::optional<engine::TestSignal> signal);
  const std::optional<engine::TestSignal>& signal() const { return signal_; }

  /// Plays this show, a trial or one with an address of the Bench, instead of the document's; nothing goes
  /// back to that. What is drawn of the document does not change.
  void setTrial(std::optional<Show> trial);
  /// What plays: the trial, or the document's show.
  const Show& played() const { return trial_ ? *trial_ : document_.show(); }

  /// The compiled show that frames belong to; may be one edit behind for a moment.
  std::shared_ptr<const CompiledShow> compiled() const { return compiled_; }
  /// compiled() is of the show as it stands.
  bool isUpToDate() const;
  /// Why the light of the show cannot be computed; empty if it can. What played before plays on then.
  const QString& compileTrouble() const { return compileTrouble_; }
  /// Light now, in the order of compiled()'s pixels; dark until the first frame of a new show.
  const PixelFrame& frame() const { return frame_; }
  /// The same as it is to be drawn; see showsAsStrips(). Valid until the next tick.
  const PixelFrame& seenFrame();
  /// Whether light or position are others than at the tick before. What is drawn of them rests if not.
  bool hasMoved() const { return hasMoved_; }
  AmpsByVolts ampsNow() const;
  /// Tells pixels of the compiled show from all others, on the LEDs and in every picture of the light; none
  /// ends it.
  void setHighlight(engine::Highlight highlight) { player_.output().setHighlight(std::move(highlight)); }
  /// Blocks until what the document says is what plays; for tests and pictures.
  void settle();

 signals:
  /// About 30 times a second: position and frame are those of now; hasMoved() tells whether they are new.
  void ticked();
  void playingChanged();
  void loopingChanged();
  void lightChanged();
  void hearsBeatsChanged(bool on);
  void scoreChanged();
  /// Waveform, onsets … of the open score are there, or it is known why not.
  void audioChanged();
  void compiledChanged();
  /// A binding asks for the next piece of the set list, or for the one before.
  void setListAsked(bool on);

 private:
  void goTo(Micros position, bool isHeard);
  void requestCompile();
  void startCompile();
  void finishCompile();
  void requestAudio();
  void requestMedia();
  /// All that the show needs as it stands.
  void requestAll();
  void requestSlow();
  /// The open score's sound as it is to be played, from `from` on.
  void prepareSound(Micros& from);
  /// Beats that have changed are heard as they are now.
  void followBeats();
  void finishAudio(const std::string& name, const Result<std::shared_ptr<const AnalysedAudio>>& result);
  void tick();
  void followHand();
  void answer(const LiveRequest& request);
  /// Plays, jumps or stands as a time code does.
  void follow(const LiveRequest& request);
  void adoptShow();

  Document& document_;
  engine::Player player_;
  ScoreId score_;
  std::map<std::string, std::shared_ptr<const AnalysedAudio>> audio_;
  std::map<std::string, QString> audioTrouble_;
  int analysing_ = 0;
  /// Counts shows opened, so that an answer about an old one is known as such.
  int generation_ = 0;
  MusicLibrary music_;
  MediaLibrary media_;
  /// Before this hears of a show that was opened, it knows what of it may be read.
  OutsideFiles outside_{document_};
  ScreenWatch screens_;
  std::map<std::string, QString> mediaTrouble_;
  std::set<std::string> mediaAsked_;
  int loading_ = 0;
  /// The open score's sound at rate_, and what it was made of.
  std::shared_ptr<const AudioClip> slow_;
  std::shared_ptr<const AudioClip> slowOf_;
  double slowRate_ = 1;
  std::shared_ptr<std::atomic<bool>> slowCancelled_;
  std::shared_ptr<const CompiledShow> compiled_;
  std::optional<Show> trial_;
  Show compiling_;
  /// What compiled_ was made of.
  Show compiledShow_;
  QFutureWatcher<Result<std::shared_ptr<const CompiledShow>>> compileWatcher_;
  QString compileTrouble_;
  /// Told to what decodes when the stage goes.
  std::shared_ptr<std::atomic<bool>> leaving_ = std::make_shared<std::atomic<bool>>(false);
  bool compileAgain_ = false;
  PixelFrame frame_;
  bool showsAsStrips_ = false;
  /// Of the present compiled show, once it is asked for.
  std::unique_ptr<StripView> stripView_;
  engine::LiveSnapshot live_;
  /// Looks that are to be lit with the next compilation.
  std::vector<LookId> toLight_;
  std::vector<LiveNote> kept_;
  bool isKeeping_ = false;
  QTimer timer_;
  QElapsedTimer sinceMoved_;
  bool wasPlaying_ = false;
  bool hasMoved_ = true;
  Micros shownAt_{-1};
  bool looping_ = false;
  std::optional<TimeSpan> part_;
  double rate_ = 1;
  bool countsIn_ = false;
  bool hearsBeats_ = false;
  /// The beats that are heard.
  BeatMarks clicked_;
  bool lit_ = false;
  std::optional<engine::TestSignal> signal_;
};

}  // namespace chispa::desk
